import { mkdirSync } from 'node:fs';
import path from 'node:path';
import PQueue from 'p-queue';
import { Sequelize, Transaction } from 'sequelize';
import sqlite3 from 'sqlite3';
import { storageFault } from './faults';
import { migrateDatabase } from './migrations';
import { defineModels } from './models';
import type { Damage } from '../wire/library';

export interface Database {
  readonly sequelize: Sequelize;
  readonly folder: string;
  /** Where it was made of what could be read of a damaged one; null: it is the folder's own. */
  readonly damage: Damage | null;
  /** Runs writing transactions one after the other: SQLite has one writer, and waiting in line loses nothing. */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
}

/** The database's file in its folder. */
export const DATABASE = 'fenvo.sqlite';

/** Where the data is kept; `FENVO_DATA` sets another place. */
export const dataFolder = (): string => path.resolve(/* turbopackIgnore: true */ process.env.FENVO_DATA ?? 'data');

/** How long a writer waits for another process's lock, milliseconds. */
const LOCK_PATIENCE = 5000;

const PRAGMAS = ['journal_mode = WAL', 'synchronous = FULL', 'foreign_keys = ON'];

interface Connection {
  configure(option: 'busyTimeout', milliseconds: number): void;
  exec(sql: string, done: (error: Error | null) => void): void;
}

interface Manager {
  getConnection(options: { readonly uuid?: string }): Promise<Connection>;
}

/**
 * Sets every connection up as it is opened: Sequelize opens one for each transaction, and its `afterConnect` is not
 * called for SQLite.
 */
function setUpConnections(sequelize: Sequelize, patience: number): void {
  const manager = (sequelize as unknown as { connectionManager: Manager }).connectionManager;
  const open = manager.getConnection.bind(manager);
  const ready = new WeakSet<Connection>();
  manager.getConnection = async (options) => {
    const connection = await open(options);
    if (ready.has(connection)) return connection;
    connection.configure('busyTimeout', patience);
    const sql = PRAGMAS.map((pragma) => `PRAGMA ${pragma};`).join('');
    await new Promise<void>((resolve, reject) => connection.exec(sql, (error) => (error ? reject(error) : resolve())));
    ready.add(connection);
    return connection;
  };
}

function connect(folder: string, patience: number): Sequelize {
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: sqlite3,
    storage: path.join(folder, DATABASE),
    logging: false,
    // The connection itself waits for a lock; to ask again after that would make the wait several times as long.
    retry: { max: 1 },
    // A writer asks for the lock as it begins, so that it waits there and not in its midst.
    transactionType: Transaction.TYPES.IMMEDIATE,
  });
  setUpConnections(sequelize, patience);
  return sequelize;
}

/**
 * Opens the folder's database and brings it up to date.
 *
 * @param patience how long a writer waits for another process's lock, milliseconds.
 * @throws what cannot be opened or changed, told as what it is: full, read-only, damaged, locked.
 */
export async function openDatabase(folder: string, patience = LOCK_PATIENCE): Promise<Database> {
  let sequelize: Sequelize | null = null;
  try {
    mkdirSync(folder, { recursive: true });
    sequelize = connect(folder, patience);
    await migrateDatabase(sequelize);
  } catch (error) {
    await sequelize?.close().catch(() => undefined);
    throw storageFault(error, folder) ?? error;
  }
  defineModels(sequelize);
  const opened = sequelize;
  // One write after the other: SQLite has one writer.
  const writes = new PQueue({ concurrency: 1 });
  return {
    sequelize: opened,
    folder,
    damage: null,
    write: (work) => writes.add(() => opened.transaction(work)),
  };
}

/** Brings a folder's database up to date, and leaves it. */
export async function migrateFolder(folder: string): Promise<void> {
  const sequelize = connect(folder, LOCK_PATIENCE);
  await migrateDatabase(sequelize).finally(() => sequelize.close());
}
