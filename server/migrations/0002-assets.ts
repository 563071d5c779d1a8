import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'assets',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      name: { type: DataTypes.TEXT, allowNull: false },
      sampleRate: { type: DataTypes.DOUBLE, allowNull: false },
      volts: { type: DataTypes.BLOB, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
}
