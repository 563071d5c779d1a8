import { statSync } from 'node:fs';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import type { Holdings, LibraryState } from '../wire/library';
import { DATABASE } from './database';

/** A library's file, asked by itself beside the server that may be using it. */

/** How long a connection of its own waits for the server's writers, milliseconds. */
const PATIENCE = 5000;

/** One connection to a database file, closed again. */
export async function withFile<T>(
  file: string,
  work: (ask: Ask) => Promise<T>,
  mode = sqlite3.OPEN_READONLY,
): Promise<T> {
  const db = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, mode, (error) => (error ? reject(error) : resolve(opened)));
  });
  db.configure('busyTimeout', PATIENCE);
  try {
    return await work(
      (sql, values = []) =>
        new Promise((resolve, reject) =>
          db.all(sql, values, (error, rows) => (error ? reject(error) : resolve(rows as Record<string, unknown>[]))),
        ),
    );
  } finally {
    await new Promise<void>((done) => db.close(() => done()));
  }
}
/** A name as SQL has it. */
export const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

export type Ask = (sql: string, values?: readonly unknown[]) => Promise<readonly Readonly<Record<string, unknown>>[]>;

/** What is counted, and in which tables; what was deleted can be restored, and counts no more. */
const COUNTED = {
  patches: 'patches WHERE deletedAt IS NULL',
  racks: 'racks WHERE deletedAt IS NULL',
  recordings: 'assets',
  sessions: 'sessions WHERE deletedAt IS NULL',
  files: 'files WHERE deletedAt IS NULL',
} as const;

/** Counts what a library holds. */
export async function holdingsIn(ask: Ask): Promise<Holdings> {
  const counts = Object.entries(COUNTED).map(async ([name, rows]) => {
    const [row] = await ask(`SELECT COUNT(*) AS n FROM ${rows}`).catch(unlessMissing);
    return [name, Number(row?.n ?? 0)] as const;
  });
  return Object.fromEntries(await Promise.all(counts)) as unknown as Holdings;
}

/** Nothing, of a table that a library of an earlier version does not have yet. */
function unlessMissing(error: unknown): [] {
  if (error instanceof Error && /no such table/.test(error.message)) return [];
  throw error;
}

/** What is saved revision on revision. */
const SAVED = ['patches', 'racks', 'setlists', 'walkthroughs'];

/** How many saves a library has seen. */
export async function savesIn(ask: Ask): Promise<number> {
  const sums = SAVED.map((table) => ask(`SELECT SUM(revision) AS n FROM ${table}`).catch(unlessMissing));
  return (await Promise.all(sums)).reduce((all, rows) => all + Number(rows[0]?.n ?? 0), 0);
}

/** Notes in a folder's library that a file holds it, with the saves that the file has seen. */
export async function noteBackup(folder: string, file: string, at: Date): Promise<void> {
  const saves = await withFile(file, savesIn);
  const values = [at.toISOString(), saves, statSync(file).size];
  const note = (ask: Ask) => ask('INSERT INTO backups (at, saves, bytes) VALUES (?, ?, ?)', values);
  // A library that can only be read, or is of an earlier version, is backed up all the same.
  await withFile(path.join(folder, DATABASE), note, sqlite3.OPEN_READWRITE).catch(() => undefined);
}

const DAY = 86_400_000;
/** A backup is due after so many days, or so many saves. */
const DUE = { days: 30, saves: 500 } as const;

/** What a folder's library holds, and how long ago it was last backed up. */
export function libraryIn(folder: string, now = new Date()): Promise<Omit<LibraryState, 'damage'>> {
  const file = path.join(folder, DATABASE);
  return withFile(file, async (ask) => {
    const [last] = await ask('SELECT at, saves FROM backups ORDER BY id DESC LIMIT 1').catch(unlessMissing);
    const [begun] = await ask('SELECT MIN(createdAt) AS at FROM patches');
    const holdings = await holdingsIn(ask);
    const from = new Date(String(last?.at ?? begun?.at ?? now.toISOString())).getTime();
    const days = Math.max(0, Math.floor((now.getTime() - from) / DAY));
    const saves = Math.max(0, (await savesIn(ask)) - Number(last?.saves ?? 0));
    return {
      folder,
      bytes: statSync(file).size,
      holdings,
      lastBackup: last ? new Date(String(last.at)).toISOString() : null,
      days,
      saves,
      // Nothing that is saved, nothing to lose.
      due: saves > 0 && (days >= DUE.days || saves >= DUE.saves),
    };
  });
}
