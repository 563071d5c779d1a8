import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { Sequelize } from 'sequelize';
import type { Transaction } from 'sequelize';
import sqlite3 from 'sqlite3';
import { migrateDatabase } from './migrations';
import { defineModels } from './models';

export interface Database {
  readonly sequelize: Sequelize;
  /** Runs writing transactions one after the other: SQLite has one writer, and waiting in line loses nothing. */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
}

/** Where the data is kept; `FENVO_DATA` sets another place. */
export const dataFolder = (): string => path.resolve(/* turbopackIgnore: true */ process.env.FENVO_DATA ?? 'data');

export async function openDatabase(folder: string): Promise<Database> {
  mkdirSync(folder, { recursive: true });
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: sqlite3,
    storage: path.join(folder, 'fenvo.sqlite'),
    logging: false,
  });
  await sequelize.query('PRAGMA journal_mode = WAL');
  await sequelize.query('PRAGMA synchronous = FULL');
  await sequelize.query('PRAGMA foreign_keys = ON');
  await sequelize.query('PRAGMA busy_timeout = 5000');
  await migrateDatabase(sequelize);
  defineModels(sequelize);
  let last: Promise<unknown> = Promise.resolve();
  return {
    sequelize,
    write(work) {
      const mine = last.then(() => sequelize.transaction(work));
      last = mine.catch(() => undefined);
      return mine;
    },
  };
}

const shared = globalThis as { fenvoDatabase?: Promise<Database> };

/** The application's one database; opened and migrated at first use. A failed opening is tried again. */
export function database(): Promise<Database> {
  shared.fenvoDatabase ??= openDatabase(dataFolder()).catch((error: unknown) => {
    delete shared.fenvoDatabase;
    throw error;
  });
  return shared.fenvoDatabase;
}
