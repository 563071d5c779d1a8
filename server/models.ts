import { DataTypes, Model } from 'sequelize';
import type { CreationOptional, InferAttributes, InferCreationAttributes, Sequelize } from 'sequelize';

export class PatchRow extends Model<InferAttributes<PatchRow>, InferCreationAttributes<PatchRow>> {
  declare id: string;
  declare revision: number;
  declare name: string;
  declare body: string;
  declare tags: string;
  declare summary: string | null;
  declare summaryRevision: number | null;
  declare createdAt: Date;
  declare updatedAt: Date;
  declare deletedAt: Date | null;
  /** Of the save that made the present revision: one whose answer was lost is recognised by it. */
  declare saveKey: CreationOptional<string | null>;
}

export class RevisionRow extends Model<InferAttributes<RevisionRow>, InferCreationAttributes<RevisionRow>> {
  declare patchId: string;
  declare revision: number;
  declare name: string;
  declare body: string;
  declare savedAt: Date;
  /** Why it is kept for ever, or null. */
  declare keptFor: CreationOptional<string | null>;
  /** Names of what was changed since the version before, as JSON; null where nobody said. */
  declare changes: string | null;
}

export class AssetRow extends Model<InferAttributes<AssetRow>, InferCreationAttributes<AssetRow>> {
  declare id: string;
  declare name: string;
  declare sampleRate: number;
  declare volts: Buffer;
  declare createdAt: Date;
}

export class RackRow extends Model<InferAttributes<RackRow>, InferCreationAttributes<RackRow>> {
  declare id: string;
  declare revision: number;
  declare name: string;
  declare body: string;
  declare saveKey: CreationOptional<string | null>;
  declare createdAt: Date;
  declare updatedAt: Date;
  declare deletedAt: Date | null;
}

export class TicksRow extends Model<InferAttributes<TicksRow>, InferCreationAttributes<TicksRow>> {
  declare patchId: string;
  /** Empty where no rack was chosen. */
  declare rackId: string;
  declare body: string;
  declare updatedAt: Date;
}

// Functions: Sequelize writes the column's name into the object that it is given.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const date = () => ({ type: DataTypes.DATE, allowNull: false });

export function defineModels(sequelize: Sequelize): void {
  PatchRow.init(
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      name: text(),
      body: text(),
      tags: text(),
      summary: { type: DataTypes.TEXT, allowNull: true },
      summaryRevision: { type: DataTypes.INTEGER, allowNull: true },
      createdAt: date(),
      updatedAt: date(),
      deletedAt: { type: DataTypes.DATE, allowNull: true },
      saveKey: { type: DataTypes.TEXT, allowNull: true },
    },
    { sequelize, tableName: 'patches', timestamps: false },
  );
  AssetRow.init(
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      name: text(),
      sampleRate: { type: DataTypes.DOUBLE, allowNull: false },
      volts: { type: DataTypes.BLOB, allowNull: false },
      createdAt: date(),
    },
    { sequelize, tableName: 'assets', timestamps: false },
  );
  RackRow.init(
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
    { sequelize, tableName: 'racks', timestamps: false },
  );
  TicksRow.init(
    {
      patchId: { type: DataTypes.TEXT, primaryKey: true },
      rackId: { type: DataTypes.TEXT, primaryKey: true },
      body: text(),
      updatedAt: date(),
    },
    { sequelize, tableName: 'ticks', timestamps: false },
  );
  RevisionRow.init(
    {
      patchId: { type: DataTypes.TEXT, primaryKey: true },
      revision: { type: DataTypes.INTEGER, primaryKey: true },
      name: text(),
      body: text(),
      savedAt: date(),
      keptFor: { type: DataTypes.TEXT, allowNull: true },
      changes: { type: DataTypes.TEXT, allowNull: true },
    },
    { sequelize, tableName: 'revisions', timestamps: false },
  );
}
