import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

/** What was changed in each saved version, as a list of names. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.addColumn('revisions', 'changes', { type: DataTypes.TEXT, allowNull: true }, { transaction });
}
