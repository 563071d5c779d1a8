import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

/** Exercises that were answered. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  const text = () => ({ type: DataTypes.TEXT, allowNull: false });
  const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
  const figure = () => ({ type: DataTypes.DOUBLE, allowNull: false });
  await query.createTable(
    'answers',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      skill: text(),
      level: whole(),
      seed: whole(),
      at: text(),
      score: figure(),
      slip: { type: DataTypes.TEXT, allowNull: true },
      seconds: figure(),
      deletedAt: { type: DataTypes.DATE, allowNull: true },
    },
    { transaction },
  );
}
