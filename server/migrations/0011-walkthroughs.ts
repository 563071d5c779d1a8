import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

/** Walkthroughs that people wrote themselves. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  const text = () => ({ type: DataTypes.TEXT, allowNull: false });
  const date = () => ({ type: DataTypes.DATE, allowNull: false });
  await query.createTable(
    'walkthroughs',
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
