import { DataTypes } from 'sequelize';
import type { QueryInterface } from 'sequelize';

export async function up(query: QueryInterface): Promise<void> {
  await query.createTable('assets', {
    id: { type: DataTypes.TEXT, primaryKey: true },
    name: { type: DataTypes.TEXT, allowNull: false },
    sampleRate: { type: DataTypes.DOUBLE, allowNull: false },
    volts: { type: DataTypes.BLOB, allowNull: false },
    createdAt: { type: DataTypes.DATE, allowNull: false },
  });
}

export async function down(query: QueryInterface): Promise<void> {
  await query.dropTable('assets');
}
