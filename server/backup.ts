import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { DATABASE, openDatabase } from './database';
import { lockFolder } from './folderLock';
import { newerThanThis } from './migrations';

/** What a library holds, for who wants to know whether a copy is whole. */
export interface Holdings {
  readonly patches: number;
  readonly racks: number;
  readonly recordings: number;
  readonly sessions: number;
  /** Photographs and recordings of sessions. */
  readonly files: number;
}

/** Something that was not done, told in a sentence. */
export class BackupRefusal extends Error {}

/** One connection to a database file, closed again. */
async function withFile<T>(file: string, work: (ask: Ask) => Promise<T>): Promise<T> {
  const db = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, sqlite3.OPEN_READONLY, (error) =>
      error ? reject(error) : resolve(opened),
    );
  });
  try {
    return await work(
      (sql) =>
        new Promise((resolve, reject) =>
          db.all(sql, (error, rows) => (error ? reject(error) : resolve(rows as Record<string, unknown>[]))),
        ),
    );
  } finally {
    await new Promise<void>((done) => db.close(() => done()));
  }
}
type Ask = (sql: string) => Promise<readonly Readonly<Record<string, unknown>>[]>;

const TABLES = {
  patches: 'patches',
  racks: 'racks',
  recordings: 'assets',
  sessions: 'sessions',
  files: 'files',
} as const;

/**
 * Opens a library's file, looks through all of it, and counts what it holds.
 *
 * @throws BackupRefusal where it is no library, damaged, or of a newer version.
 */
export async function verify(file: string): Promise<Holdings> {
  const refused = (why: string): BackupRefusal => new BackupRefusal(`${file} ${why}`);
  if (!existsSync(file)) throw refused('isn’t there.');
  try {
    return await withFile(file, async (ask) => {
      const [whole] = await ask('PRAGMA integrity_check');
      if (whole?.integrity_check !== 'ok') throw refused(`is damaged: ${String(whole?.integrity_check)}.`);
      const tables = new Set((await ask("SELECT name FROM sqlite_master WHERE type = 'table'")).map((t) => t.name));
      if (!tables.has('SequelizeMeta') || !tables.has('patches')) throw refused('isn’t a library of Fenvo.');
      const newer = newerThanThis((await ask('SELECT name FROM SequelizeMeta')).map((m) => String(m.name)));
      if (newer) throw refused(newer);
      const counts = Object.entries(TABLES).map(async ([name, table]) => {
        const [row] = tables.has(table) ? await ask(`SELECT COUNT(*) AS n FROM ${table}`) : [];
        return [name, Number(row?.n ?? 0)] as const;
      });
      return Object.fromEntries(await Promise.all(counts)) as unknown as Holdings;
    });
  } catch (error) {
    if (error instanceof BackupRefusal) throw error;
    throw refused(`could not be read: ${error instanceof Error ? error.message : String(error)}.`);
  }
}

/** @throws BackupRefusal where a folder's library is of a newer version: nothing of it is touched. */
export async function refuseNewer(folder: string): Promise<void> {
  const file = path.join(folder, DATABASE);
  if (!existsSync(file)) return;
  const made = await withFile(file, (ask) => ask('SELECT name FROM SequelizeMeta')).catch(() => []);
  const newer = newerThanThis(made.map((m) => String(m.name)));
  if (newer) throw new BackupRefusal(`The library in ${folder} ${newer}`);
}

/**
 * Copies a folder's library into one file, recordings and photographs included, while a server may be writing to it: the
 * copy is of one moment. It is verified before it gets its name.
 *
 * @throws BackupRefusal where there is no library, or something stands at the file's place already.
 */
export async function backUp(folder: string, file: string): Promise<Holdings & { readonly bytes: number }> {
  const source = path.join(folder, DATABASE);
  if (!existsSync(source)) throw new BackupRefusal(`There is no library in ${folder}.`);
  if (existsSync(file)) throw new BackupRefusal(`${file} is there already. Nothing was written; choose another name.`);
  mkdirSync(path.dirname(file), { recursive: true });
  const partial = `${file}.partial`;
  rmSync(partial, { force: true });
  try {
    await withFile(source, (ask) => ask(`VACUUM INTO '${partial.replaceAll("'", "''")}'`));
    const holdings = await verify(partial);
    renameSync(partial, file);
    return { ...holdings, bytes: statSync(file).size };
  } finally {
    rmSync(partial, { force: true });
  }
}

const dateIn = (now: Date): string => now.toISOString().slice(0, 19).replace('T', '-').replaceAll(':', '');

/**
 * Puts a backup in a folder, brought up to date. A library that is there is never lost: it is put aside, and only where
 * that was asked for.
 *
 * @returns what the folder holds now, and where its former library lies; null where there was none.
 * @throws BackupRefusal where the backup is none, a server uses the folder, or a library is there and `replace` is not set.
 */
export async function restoreBackup(
  file: string,
  folder: string,
  { replace, now = new Date() }: { readonly replace: boolean; readonly now?: Date },
): Promise<Holdings & { readonly aside: string | null }> {
  await verify(file);
  const target = path.join(folder, DATABASE);
  const lock = await lockFolder(folder).catch((error: unknown) => {
    throw new BackupRefusal(error instanceof Error ? error.message : String(error));
  });
  try {
    const taken = existsSync(target);
    if (taken && !replace)
      throw new BackupRefusal(
        `There is a library in ${folder} already. Nothing was changed. Pass --replace to put it aside, or another folder with --data.`,
      );
    const aside = taken ? path.join(folder, `before-restore-${dateIn(now)}.sqlite`) : null;
    const partial = `${target}.partial`;
    copyFileSync(file, partial);
    if (aside) {
      await backUp(folder, aside);
      for (const end of ['-wal', '-shm', '']) rmSync(`${target}${end}`, { force: true });
    }
    renameSync(partial, target);
    const { sequelize } = await openDatabase(folder);
    await sequelize.close();
    return { ...(await verify(target)), aside };
  } finally {
    lock.release();
  }
}
