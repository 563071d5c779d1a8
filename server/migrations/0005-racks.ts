import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

// Functions: Sequelize writes the column's name into the object that it is given.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const date = () => ({ type: DataTypes.DATE, allowNull: false });

/** Racks, and what was ticked of a sheet: of a patch on a rack, or on none (an empty name). */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'racks',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      name: text(),
      body: text(),
      saveKey: { type: DataTypes.TEXT, allowNull: true },
      createdAt: date(),
      updatedAt: date(),
      deletedAt: { type: DataTypes.DATE, allowNull: true },
    },
    { transaction },
  );
  await query.createTable(
    'ticks',
    {
      patchId: { type: DataTypes.TEXT, primaryKey: true },
      rackId: { type: DataTypes.TEXT, primaryKey: true },
      body: text(),
      updatedAt: date(),
    },
    { transaction },
  );
}
