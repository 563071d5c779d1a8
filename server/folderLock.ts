import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { closeSync, existsSync, mkdirSync, openSync, rmSync } from 'node:fs';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { DATABASE } from './database';
import { storageFault } from './faults';

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

const LOCK = 'server.lock';
/** How long a lock is waited for that is just being let go of, milliseconds. */
const PATIENCE = 1000;

/** Locks that this process holds: a connection that nothing refers to is closed with the rest of what is left over. */
const held = new Set<sqlite3.Database>();

/** Takes a file's lock. @throws what the database says: SQLITE_BUSY where it is taken. */
function take(file: string, patience = PATIENCE): Promise<FolderLock> {
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(file, (failed) => {
      if (failed) return reject(failed);
      db.configure('busyTimeout', patience);
      db.exec('BEGIN EXCLUSIVE', (refused) => {
        if (refused) return db.close(() => reject(refused));
        held.add(db);
        resolve({
          release() {
            held.delete(db);
            db.close();
          },
        });
      });
    });
  });
}

const isBusy = (error: unknown): boolean => error instanceof Error && error.message.includes('SQLITE_BUSY');

/** Whether a file of a folder can be locked at all: one that nobody else knows of. A lock that is refused is BUSY too. */
async function canLock(folder: string): Promise<boolean> {
  const file = path.join(folder, `lock-${randomUUID()}`);
  try {
    (await take(file, 0)).release();
    return true;
  } catch (error) {
    return !isBusy(error);
  } finally {
    rmSync(file, { force: true });
  }
}

/**
 * Takes a data folder for one server. Programs that only add demo data or read do not ask for it.
 *
 * @throws where another server has it, it cannot be locked or cannot be written, with what to do.
 */
export async function lockFolder(folder: string): Promise<FolderLock> {
  const other = 'pass a different folder with --data';
  try {
    prepare(folder);
    return await take(path.join(folder, LOCK));
  } catch (error) {
    if (!isBusy(error)) {
      const isFull = storageFault(error, folder)?.code === 'disk-full';
      const cure = isFull ? 'Free some space' : 'Give this user write permission';
      const says = error instanceof Error ? error.message : String(error);
      throw new Error(`Can’t write to ${folder}: ${says}. ${cure}, or ${other}.`, { cause: error });
    }
    throw new Error(
      (await canLock(folder))
        ? `Another Fenvo is already using ${folder}. Use that one, stop it, or ${other}.`
        : `The file system of ${folder} has no file locks, so two programs could write at once. Please ${other}, on a local disk.`,
      { cause: error },
    );
  }
}

/** Tries, as another program would, whether a folder's lock can be taken: 0 where it can. */
const TRY = `
  const sqlite3 = require('sqlite3');
  const db = new sqlite3.Database(process.argv[1], (failed) => {
    if (failed) process.exit(2);
    db.exec('BEGIN EXCLUSIVE', (refused) => process.exit(refused ? 1 : 0));
  });
`;

/** Whether the lock of a folder that this process holds keeps other programs out; some network folders only say so. */
export function lockHolds(folder: string): Promise<boolean> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, ['-e', TRY, path.join(folder, LOCK)], { stdio: 'ignore' });
    child.once('error', () => resolve(true));
    child.once('exit', (code) => resolve(code !== 0));
  });
}
