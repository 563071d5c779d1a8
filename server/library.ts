import { randomUUID } from 'node:crypto';
import { copyFileSync, existsSync, renameSync } from 'node:fs';
import path from 'node:path';
import { dateIn, passing, verify } from './backup';
import { ApiError } from './checks/errors';
import { DATABASE, dataFolder, openDatabase } from './database';
import type { Database } from './database';
import { defineModels } from './models';
import { isWhole, salvage } from './salvage';
import type { Restored } from '../wire/library';

/** The application's one library: opened, looked through, and open read-only as far as it can be read where it is damaged. */

/** After the first pages, milliseconds: looking through a large file takes the disk. */
const LOOKS_AFTER = 2000;
/** What was asked of a library before it made way is answered by then, milliseconds. */
const LAST_ANSWERS = 30_000;

const shared = globalThis as {
  fenvoDatabase?: Promise<Database>;
  fenvoGivesWay?: Promise<void>;
};

/** The database that this copy of the modules has its models in: pages and route handlers are bundled apart. */
let known: Database | null = null;

/** What can be read of a folder's damaged library. @throws where nothing can. */
async function openSalvaged(folder: string): Promise<Database> {
  const own = path.join(passing(folder), `salvaged-${randomUUID()}`);
  const damage = await salvage(path.join(folder, DATABASE), own);
  console.error(`The library in ${folder} is damaged. What could be read is open read-only.`);
  return { ...(await openDatabase(own)), damage };
}

/** Looks through the file beside the requests; a damaged one makes way for what can be read of it. */
const lookThrough = (db: Database): void =>
  void setTimeout(() => void giveWay(db).catch(console.error), LOOKS_AFTER).unref();

/** Several requests may meet the damage at once. */
const giveWay = (db: Database): Promise<void> =>
  (shared.fenvoGivesWay ??= (async () => {
    const isOpen = async (): Promise<boolean> => (await shared.fenvoDatabase?.catch(() => null)) === db;
    if (db.damage || !(await isOpen()) || (await isWhole(path.join(db.folder, DATABASE)))) return;
    const salvaged = await openSalvaged(db.folder);
    if (!(await isOpen())) return;
    shared.fenvoDatabase = Promise.resolve(salvaged);
    closeLater(db);
  })().finally(() => delete shared.fenvoGivesWay));

/** Once the requests that it still answers are done. */
const closeLater = (db: Database): void =>
  void setTimeout(() => void db.sequelize.close().catch(console.error), LAST_ANSWERS).unref();

async function openLibrary(folder: string): Promise<Database> {
  try {
    const db = await openDatabase(folder);
    lookThrough(db);
    return db;
  } catch (error) {
    if (!(error instanceof ApiError) || error.code !== 'damaged') throw error;
    // Where nothing can be read, that it is damaged is all there is to say.
    return openSalvaged(folder).catch(() => Promise.reject(error as Error));
  }
}

/** The application's one database; opened and migrated at first use. A failed opening is tried again. */
export async function database(): Promise<Database> {
  shared.fenvoDatabase ??= openLibrary(dataFolder()).catch((error: unknown) => {
    delete shared.fenvoDatabase;
    throw error;
  });
  const opened = await shared.fenvoDatabase;
  if (known !== opened) defineModels(opened.sequelize);
  known = opened;
  return opened;
}

/** A page of the file was met that makes no sense. */
export async function metDamage(): Promise<void> {
  const db = await shared.fenvoDatabase?.catch(() => null);
  if (db) await giveWay(db);
}

/**
 * Goes on with a library that is made of the damaged one, or of a backup: the damaged file is kept beside it.
 *
 * @param from the library's file, which is copied: who still reads it goes on reading it.
 * @returns where the damaged one lies.
 */
async function replaceDamaged(from: string, now = new Date()): Promise<string> {
  const db = await database();
  const folder = dataFolder();
  if (!db.damage) throw new ApiError(409, 'sound', 'The library is not damaged. Nothing was changed.');
  const [file, aside] = [path.join(folder, DATABASE), path.join(folder, `damaged-${dateIn(now)}.sqlite`)];
  const goesOn = (async (): Promise<Database> => {
    copyFileSync(from, `${file}.partial`);
    for (const end of ['-wal', '-shm', '']) if (existsSync(file + end)) renameSync(file + end, aside + end);
    renameSync(`${file}.partial`, file);
    closeLater(db);
    return openLibrary(folder);
  })();
  shared.fenvoDatabase = goesOn;
  await goesOn;
  return aside;
}

/** Goes on with what could be read of a damaged library. */
export async function goOnWithSalvaged(): Promise<Restored> {
  const db = await database();
  const file = path.join(db.folder, DATABASE);
  // All that is written lies in the one file before that gets its place.
  await db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
  return { holdings: await verify(file), aside: await replaceDamaged(file) };
}

/** Puts a backup in the place of a damaged library. @throws BackupRefusal where it is none. */
export const restoreOverDamaged = async (file: string): Promise<Restored> => ({
  holdings: await verify(file),
  aside: await replaceDamaged(file),
});
