import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

// Functions: Sequelize writes the column's name into the object that it is given.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const maybe = () => ({ type: DataTypes.TEXT, allowNull: true });
const number = () => ({ type: DataTypes.DOUBLE, allowNull: true });
const date = () => ({ type: DataTypes.DATE, allowNull: false });

/** Sessions at the rack, their readings, photographs and recordings. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'sessions',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      patchId: text(),
      patchName: text(),
      patchRevision: { type: DataTypes.INTEGER, allowNull: false },
      body: text(),
      rackId: text(),
      rackName: text(),
      assignment: text(),
      expects: text(),
      steps: { type: DataTypes.INTEGER, allowNull: false },
      ticks: text(),
      notes: text(),
      simulated: maybe(),
      started: date(),
      lastUsed: date(),
      ended: { type: DataTypes.DATE, allowNull: true },
      deletedAt: { type: DataTypes.DATE, allowNull: true },
    },
    { transaction },
  );
  await query.createTable(
    'readings',
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      sessionId: { ...text(), references: { model: 'sessions', key: 'id' } },
      at: text(),
      quantity: text(),
      value: { type: DataTypes.DOUBLE, allowNull: false },
      unit: text(),
      plusMinus: number(),
      step: maybe(),
      knobs: text(),
      corrects: { type: DataTypes.INTEGER, allowNull: true },
      expected: number(),
      expectedPlusMinus: number(),
      verdict: maybe(),
      time: date(),
    },
    { transaction },
  );
  await query.addIndex('readings', ['sessionId'], { name: 'readings_of_session', transaction });
  await query.addIndex('readings', ['at', 'quantity'], { name: 'readings_at', transaction });
  await query.createTable(
    'files',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      sessionId: { ...text(), references: { model: 'sessions', key: 'id' } },
      kind: text(),
      name: text(),
      type: text(),
      at: maybe(),
      bytes: { type: DataTypes.BLOB, allowNull: false },
      added: date(),
      deletedAt: { type: DataTypes.DATE, allowNull: true },
    },
    { transaction },
  );
  // Ticks from before a sheet was begun anew are none.
  await query.addColumn('ticks', 'since', { type: DataTypes.DATE, allowNull: true }, { transaction } as object);
  await query.addIndex('files', ['sessionId'], { name: 'files_of_session', transaction });
}
