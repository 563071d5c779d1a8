import { closeSync, existsSync, mkdirSync, openSync } from 'node:fs';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { DATABASE } from './database';

/** A folder that a running server holds; let go of by the system however the server ends. */
export interface FolderLock {
  release(): void;
}

/** Makes a folder, and looks whether a database that is in it can be written; the lock shows whether the folder can. */
function prepare(folder: string): void {
  mkdirSync(folder, { recursive: true });
  const database = path.join(folder, DATABASE);
  if (existsSync(database)) closeSync(openSync(database, 'r+'));
}

/**
 * Takes a data folder for one server. Programs that only add demo data or read do not ask for it.
 *
 * @throws where another server has it or it cannot be written, with what to do.
 */
export function lockFolder(folder: string): Promise<FolderLock> {
  const unusable = (error: unknown): Error =>
    new Error(
      `Can’t write to ${folder}: ${error instanceof Error ? error.message : String(error)}. Give this user write permission, or pass a different folder with --data.`,
    );
  try {
    prepare(folder);
  } catch (error) {
    return Promise.reject(unusable(error));
  }
  const taken = `Another Fenvo is already using ${folder}. Use that one, stop it, or pass a different folder with --data.`;
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(path.join(folder, 'server.lock'), (failed) => {
      if (failed) return reject(unusable(failed));
      db.configure('busyTimeout', 1000);
      db.exec('BEGIN EXCLUSIVE', (busy) => {
        if (!busy) return resolve({ release: () => db.close() });
        db.close();
        reject(/SQLITE_BUSY/.test(busy.message) ? new Error(taken) : unusable(busy));
      });
    });
  });
}
