import type { QueryInterface, Transaction } from 'sequelize';
import { withKnownQuantities } from '../../core';
import { mendBodies } from './bodies';

/** Names in stored targets the quantity that they were read as, where a word was kept that no quantity goes by. */
export const up = ({ sequelize }: QueryInterface, transaction: Transaction): Promise<void> =>
  mendBodies(sequelize, transaction, '"quantity"', withKnownQuantities);
