import { existsSync, renameSync, rmSync } from 'node:fs';
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

const shared = globalThis as { fenvoDatabase?: Promise<Database>; fenvoLooks?: NodeJS.Timeout };

/** The database that this copy of the modules has its models in: pages and route handlers are bundled apart. */
let known: Database | null = null;

/** What can be read of a folder's damaged library. @throws where nothing can. */
async function openSalvaged(folder: string): Promise<Database> {
  const own = path.join(passing(folder), 'salvaged');
  const damage = await salvage(path.join(folder, DATABASE), own);
  console.error(`The library in ${folder} is damaged. What could be read is open read-only.`);
  return { ...(await openDatabase(own)), damage };
}

/** Looks through the file beside the requests; a damaged one makes way for what can be read of it. */
function lookThrough(db: Database): void {
  clearTimeout(shared.fenvoLooks);
  shared.fenvoLooks = setTimeout(() => void giveWay(db).catch(console.error), LOOKS_AFTER).unref();
}

async function giveWay(db: Database): Promise<void> {
  if (db.damage || (await isWhole(path.join(db.folder, DATABASE)))) return;
  const salvaged = await openSalvaged(db.folder);
  if ((await shared.fenvoDatabase?.catch(() => null)) !== db) return;
  shared.fenvoDatabase = Promise.resolve(salvaged);
  await db.sequelize.close();
}

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
 * @param from the library's file; it is used up.
 * @returns where the damaged one lies.
 */
async function replaceDamaged(from: string, now = new Date()): Promise<string> {
  const db = await database();
  const folder = dataFolder();
  if (!db.damage) throw new ApiError(409, 'sound', 'The library is not damaged. Nothing was changed.');
  const [file, aside] = [path.join(folder, DATABASE), path.join(folder, `damaged-${dateIn(now)}.sqlite`)];
  const goesOn = (async (): Promise<Database> => {
    await db.sequelize.close();
    for (const end of ['-wal', '-shm', '']) if (existsSync(file + end)) renameSync(file + end, aside + end);
    renameSync(from, file);
    rmSync(path.join(passing(folder), 'salvaged'), { recursive: true, force: true });
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
