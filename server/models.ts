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
  /** When it was begun anew: what was ticked before counts no more. */
  declare since: CreationOptional<Date | null>;
}

export class SessionRow extends Model<InferAttributes<SessionRow>, InferCreationAttributes<SessionRow>> {
  declare id: string;
  declare patchId: string;
  declare patchName: string;
  declare patchRevision: number;
  /** The whole patch, as it was. */
  declare body: string;
  /** Empty where no rack was chosen. */
  declare rackId: string;
  declare rackName: string;
  /** Which channel played which module, as JSON. */
  declare assignment: string;
  /** What the sheet expected, by step, as JSON. */
  declare expects: string;
  /** How many steps the sheet had. */
  declare steps: number;
  declare ticks: string;
  declare notes: string;
  /** Which rack was simulated, and what was wrong with it, as JSON; null at a real one. */
  declare simulated: string | null;
  declare started: Date;
  declare lastUsed: Date;
  declare ended: Date | null;
  declare deletedAt: Date | null;
}

/** Only ever added; a correction names the one whose place it takes. */
export class ReadingRow extends Model<InferAttributes<ReadingRow>, InferCreationAttributes<ReadingRow>> {
  declare id: CreationOptional<number>;
  declare sessionId: string;
  declare at: string;
  declare quantity: string;
  declare value: number;
  declare unit: string;
  declare plusMinus: number | null;
  declare step: string | null;
  /** Hand knobs that stood elsewhere, as JSON. */
  declare knobs: string;
  declare corrects: number | null;
  declare expected: number | null;
  declare expectedPlusMinus: number | null;
  declare verdict: string | null;
  declare time: Date;
}

/** A document that is saved revision on revision: a name to list it by, and the rest as text. */
export class RevisedRow extends Model<InferAttributes<RevisedRow>, InferCreationAttributes<RevisedRow>> {
  declare id: string;
  declare revision: number;
  declare name: string;
  declare body: string;
  declare updatedAt: Date;
  declare deletedAt: Date | null;
}

/** An evening: patches in an order. */
export class SetListRow extends RevisedRow {}

/** A walkthrough that somebody wrote. */
export class WalkthroughRow extends RevisedRow {}

/** An exercise that was answered. */
export class AnswerRow extends Model<InferAttributes<AnswerRow>, InferCreationAttributes<AnswerRow>> {
  declare id: string;
  declare skill: string;
  declare level: number;
  declare seed: number;
  /** As an ISO date: it is compared, never computed with here. */
  declare at: string;
  declare score: number;
  declare slip: string | null;
  declare seconds: number;
  declare deletedAt: Date | null;
}

/** What is chosen once; there is one. */
export class PreferencesRow extends Model<InferAttributes<PreferencesRow>, InferCreationAttributes<PreferencesRow>> {
  declare id: number;
  declare body: string;
  declare updatedAt: Date;
}

/** A photograph or a recording of a session. */
export class FileRow extends Model<InferAttributes<FileRow>, InferCreationAttributes<FileRow>> {
  declare id: string;
  declare sessionId: string;
  declare kind: string;
  declare name: string;
  declare type: string;
  declare at: string | null;
  declare bytes: Buffer;
  declare added: Date;
  declare deletedAt: Date | null;
}

// Functions: Sequelize writes the column's name into the object that it is given.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const date = () => ({ type: DataTypes.DATE, allowNull: false });
const maybe = () => ({ type: DataTypes.TEXT, allowNull: true });
const number = () => ({ type: DataTypes.DOUBLE, allowNull: true });
const dateOrNone = () => ({ type: DataTypes.DATE, allowNull: true });

/** Columns of what is saved revision on revision. */
const revised = () => ({
  id: { type: DataTypes.TEXT, primaryKey: true },
  revision: { type: DataTypes.INTEGER, allowNull: false },
  name: text(),
  body: text(),
  updatedAt: date(),
  deletedAt: dateOrNone(),
});

function defineBench(sequelize: Sequelize): void {
  SessionRow.init(
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
      ended: dateOrNone(),
      deletedAt: dateOrNone(),
    },
    { sequelize, tableName: 'sessions', timestamps: false },
  );
  ReadingRow.init(
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      sessionId: text(),
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
    { sequelize, tableName: 'readings', timestamps: false },
  );
  SetListRow.init(revised(), { sequelize, tableName: 'setlists', timestamps: false });
  FileRow.init(
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      sessionId: text(),
      kind: text(),
      name: text(),
      type: text(),
      at: maybe(),
      bytes: { type: DataTypes.BLOB, allowNull: false },
      added: date(),
      deletedAt: dateOrNone(),
    },
    { sequelize, tableName: 'files', timestamps: false },
  );
}

function definePractice(sequelize: Sequelize): void {
  const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
  const figure = () => ({ type: DataTypes.DOUBLE, allowNull: false });
  WalkthroughRow.init(revised(), { sequelize, tableName: 'walkthroughs', timestamps: false });
  AnswerRow.init(
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      skill: text(),
      level: whole(),
      seed: whole(),
      at: text(),
      score: figure(),
      slip: maybe(),
      seconds: figure(),
      deletedAt: dateOrNone(),
    },
    { sequelize, tableName: 'answers', timestamps: false },
  );
}

export function defineModels(sequelize: Sequelize): void {
  defineBench(sequelize);
  definePractice(sequelize);
  PreferencesRow.init(
    { id: { type: DataTypes.INTEGER, primaryKey: true }, body: text(), updatedAt: date() },
    { sequelize, tableName: 'preferences', timestamps: false },
  );
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
      since: dateOrNone(),
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
