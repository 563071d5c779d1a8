import type { QueryInterface, Transaction } from 'sequelize';
import { withOldDefaults } from '../../core';
import { mendBodies } from './bodies';

/** Writes into stored documents the crossfade amount that they were made under, which a crossfade no longer begins with. */
export const up = ({ sequelize }: QueryInterface, transaction: Transaction): Promise<void> =>
  mendBodies(sequelize, transaction, '"crossfade"', withOldDefaults);
