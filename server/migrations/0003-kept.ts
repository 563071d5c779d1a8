import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

/** The key of the save that made the present revision, and why a version is kept for ever. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.addColumn('patches', 'saveKey', { type: DataTypes.TEXT, allowNull: true }, { transaction });
  await query.addColumn('revisions', 'keptFor', { type: DataTypes.TEXT, allowNull: true }, { transaction });
}
