import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { DATABASE, migrateFolder } from './database';
import { lockFolder } from './folderLock';
import { newerThanThis } from './migrations';
import type { Holdings, Restored } from '../wire/library';
import { holdingsIn, noteBackup, quoted, withFile } from './libraryFile';
import type { Ask } from './libraryFile';

/** Something that was not done, told in a sentence. */
export class BackupRefusal extends Error {}

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
      return holdingsIn(ask);
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
 * copy is of one moment. It is verified before it gets its name, and the library notes that it is backed up.
 *
 * @throws BackupRefusal where there is no library, or something stands at the file's place already.
 */
export async function backUp(folder: string, file: string, now = new Date()): Promise<Copied> {
  const copied = await copyLibrary(folder, file);
  await noteBackup(folder, file, now);
  return copied;
}

type Copied = Holdings & { readonly bytes: number };

async function copyLibrary(folder: string, file: string): Promise<Copied> {
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

/** A moment as it stands in a file's name. */
export const dateIn = (now: Date): string => now.toISOString().slice(0, 19).replace('T', '-').replaceAll(':', '');

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
      await copyLibrary(folder, aside);
      for (const end of ['-wal', '-shm', '']) rmSync(`${target}${end}`, { force: true });
    }
    renameSync(partial, target);
    await migrateFolder(folder);
    await noteBackup(folder, target, now);
    return { ...(await verify(target)), aside };
  } finally {
    lock.release();
  }
}

/** Where what comes in waits until it is restored, and what goes out until it is fetched. */
export const passing = (folder: string): string => path.join(folder, 'passing');

/**
 * Puts a backup in the place of a library that a server is using: all of it or nothing, in one transaction, so that
 * whoever reads meanwhile reads one or the other. The former library is put aside first. The file is used up.
 *
 * @throws BackupRefusal where the backup is none.
 */
export async function restoreBeside(file: string, folder: string, now = new Date()): Promise<Restored> {
  await verify(file);
  const aside = path.join(folder, `before-restore-${dateIn(now)}.sqlite`);
  await copyLibrary(folder, aside);
  // Brought up to date in a folder of its own.
  const updated = path.join(passing(folder), 'restoring');
  rmSync(updated, { recursive: true, force: true });
  mkdirSync(updated, { recursive: true });
  const from = path.join(updated, DATABASE);
  try {
    renameSync(file, from);
    await migrateFolder(updated);
    await withFile(path.join(folder, DATABASE), (ask) => replaceAll(ask, from), sqlite3.OPEN_READWRITE);
  } finally {
    rmSync(updated, { recursive: true, force: true });
  }
  const library = path.join(folder, DATABASE);
  await noteBackup(folder, library, now);
  return { holdings: await withFile(library, holdingsIn), aside };
}

/** What the database makes itself of what is written elsewhere. */
const DERIVED = /^patch_(index|words)/;

/** Every table's rows in the place of those that are there. */
async function replaceAll(ask: Ask, from: string): Promise<void> {
  await ask('PRAGMA foreign_keys = OFF');
  await ask('ATTACH DATABASE ? AS other', [from]);
  const tables = await ask("SELECT name FROM other.sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'");
  await ask('BEGIN IMMEDIATE');
  try {
    for (const { name } of tables) {
      if (DERIVED.test(String(name))) continue;
      const table = quoted(String(name));
      const columns = await ask(`SELECT name FROM pragma_table_info('${String(name)}')`);
      const list = columns.map((c) => quoted(String(c.name))).join(', ');
      await ask(`DELETE FROM main.${table}`);
      await ask(`INSERT INTO main.${table} (${list}) SELECT ${list} FROM other.${table}`);
    }
    await ask('COMMIT');
  } catch (error) {
    await ask('ROLLBACK');
    throw error;
  }
  await ask('DETACH DATABASE other');
}
