import { DataTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';

// Functions: Sequelize writes the column's name into the object that it is given.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });

/** Every step does nothing where it was done before: an older Fenvo could be ended between two of them. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'patches',
    {
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
    },
    { transaction },
  );
  await query.createTable(
    'revisions',
    {
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
    },
    { transaction },
  );
  await query.sequelize.query(
    'CREATE INDEX IF NOT EXISTS `patches_deleted_at_updated_at` ON `patches` (`deletedAt`, `updatedAt`)',
    { transaction },
  );
}
