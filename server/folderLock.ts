import { mkdirSync } from 'node:fs';
import path from 'node:path';
import sqlite3 from 'sqlite3';

/** A folder that a running server holds; let go of by the system however the server ends. */
export interface FolderLock {
  release(): void;
}

/**
 * Takes a data folder for one server. Programs that only add demo data or read do not ask for it.
 *
 * @throws where another server has it, with what to do.
 */
export function lockFolder(folder: string): Promise<FolderLock> {
  mkdirSync(folder, { recursive: true });
  const taken = `Another Fenvo serves ${folder} already. Use that one, end it, or name another folder with --data.`;
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(path.join(folder, 'server.lock'), (failed) => {
      if (failed) return reject(failed);
      db.configure('busyTimeout', 1000);
      db.exec('BEGIN EXCLUSIVE', (busy) => {
        if (!busy) return resolve({ release: () => db.close() });
        db.close();
        reject(/SQLITE_BUSY/.test(busy.message) ? new Error(taken) : busy);
      });
    });
  });
}
