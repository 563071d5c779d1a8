import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

/** When the library was backed up, and how many saves it had seen by then; and what its owner prefers. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
  const date = () => ({ type: DataTypes.DATE, allowNull: false });
  await query.createTable(
    'backups',
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      at: date(),
      saves: whole(),
      bytes: whole(),
    },
    { transaction },
  );
  await query.createTable(
    'preferences',
    {
      id: { type: DataTypes.INTEGER, primaryKey: true },
      body: { type: DataTypes.TEXT, allowNull: false },
      updatedAt: date(),
    },
    { transaction },
  );
}
