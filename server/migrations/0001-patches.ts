import { DataTypes } from 'sequelize';
import type { QueryInterface } from 'sequelize';

// Functions: Sequelize writes the column's name into the object that it is given.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });

export async function up(query: QueryInterface): Promise<void> {
  await query.createTable('patches', {
    id: { type: DataTypes.TEXT, primaryKey: true },
    revision: whole(),
    name: text(),
    body: text(),
    tags: { ...text(), defaultValue: '[]' },
    summary: { type: DataTypes.TEXT, allowNull: true },
    summaryRevision: { type: DataTypes.INTEGER, allowNull: true },
    createdAt: { type: DataTypes.DATE, allowNull: false },
    updatedAt: { type: DataTypes.DATE, allowNull: false },
    deletedAt: { type: DataTypes.DATE, allowNull: true },
  });
  await query.createTable('revisions', {
    patchId: {
      type: DataTypes.TEXT,
      primaryKey: true,
      references: { model: 'patches', key: 'id' },
      onDelete: 'CASCADE',
    },
    revision: { type: DataTypes.INTEGER, primaryKey: true },
    name: text(),
    body: text(),
    savedAt: { type: DataTypes.DATE, allowNull: false },
  });
  await query.addIndex('patches', ['deletedAt', 'updatedAt']);
}

export async function down(query: QueryInterface): Promise<void> {
  await query.dropTable('revisions');
  await query.dropTable('patches');
}
