import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

/** When the library was backed up, and how many saves it had seen by then. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'backups',
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      at: { type: DataTypes.DATE, allowNull: false },
      saves: { type: DataTypes.INTEGER, allowNull: false },
      bytes: { type: DataTypes.INTEGER, allowNull: false },
    },
    { transaction },
  );
}
