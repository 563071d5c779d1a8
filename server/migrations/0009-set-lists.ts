import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

/** Evenings: patches in an order, with notes and minutes. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  const text = () => ({ type: DataTypes.TEXT, allowNull: false });
  const date = () => ({ type: DataTypes.DATE, allowNull: false });
  await query.createTable(
    'setlists',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      name: text(),
      body: text(),
      updatedAt: date(),
      deletedAt: { type: DataTypes.DATE, allowNull: true },
    },
    { transaction },
  );
}
