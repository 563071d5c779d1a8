import { QueryTypes } from 'sequelize';
import type { QueryInterface, Sequelize, Transaction } from 'sequelize';
import { ApiError } from '../checks/errors';
import * as patches from './0001-patches';
import * as assets from './0002-assets';
import * as kept from './0003-kept';
import * as crossfades from './0004-crossfades';
import * as racks from './0005-racks';
import * as quantities from './0006-quantities';
import * as changes from './0007-changes';
import * as bench from './0008-bench';
import * as setLists from './0009-set-lists';
import * as practice from './0010-practice';
import * as walkthroughs from './0011-walkthroughs';
import * as library from './0012-library';
import * as search from './0013-search';

type Migration = (query: QueryInterface, transaction: Transaction) => Promise<void>;

/** In order; a migration that has shipped does for ever what it did. */
const migrations: readonly { readonly name: string; readonly up: Migration }[] = [
  { name: '0001-patches', up: patches.up },
  { name: '0002-assets', up: assets.up },
  { name: '0003-kept', up: kept.up },
  { name: '0004-crossfades', up: crossfades.up },
  { name: '0005-racks', up: racks.up },
  { name: '0006-quantities', up: quantities.up },
  { name: '0007-changes', up: changes.up },
  { name: '0008-bench', up: bench.up },
  { name: '0009-set-lists', up: setLists.up },
  { name: '0010-practice', up: practice.up },
  { name: '0011-walkthroughs', up: walkthroughs.up },
  { name: '0012-library', up: library.up },
  { name: '0013-search', up: search.up },
];

export const migrationNames = migrations.map((m) => m.name);

/**
 * Why a library is left alone that steps were made in which are not known here; null where all are known.
 *
 * @param made the names of the steps that were made.
 */
export const newerThanThis = (made: readonly string[]): string | null =>
  made.some((name) => !migrationNames.includes(name))
    ? 'was made by a newer version of Fenvo. Use that version; nothing was changed.'
    : null;

/** Looked at first without writing anything, so that a folder that can only be read can be read. */
async function isDone(sequelize: Sequelize): Promise<boolean> {
  const rows = await sequelize
    .query<{ name: string }>('SELECT name FROM `SequelizeMeta`', { type: QueryTypes.SELECT })
    .catch(() => []);
  const names = new Set(rows.map((r) => r.name));
  const newer = newerThanThis([...names]);
  if (newer) throw new ApiError(503, 'newer', `This library ${newer}`);
  return migrations.every((m) => names.has(m.name));
}

async function done(sequelize: Sequelize, transaction: Transaction): Promise<Set<string>> {
  await sequelize.query(
    'CREATE TABLE IF NOT EXISTS `SequelizeMeta` (`name` VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)',
    {
      transaction,
    },
  );
  const rows = await sequelize.query<{ name: string }>('SELECT name FROM `SequelizeMeta`', {
    transaction,
    type: QueryTypes.SELECT,
  });
  return new Set(rows.map((r) => r.name));
}

/**
 * Runs what has not run yet: each step and the note that it was made in one transaction, so that a crash leaves either
 * both or neither. Two programs that start at once wait for each other.
 */
export async function migrateDatabase(sequelize: Sequelize): Promise<void> {
  if (await isDone(sequelize)) return;
  const query = sequelize.getQueryInterface();
  for (const { name, up } of migrations) {
    await sequelize.transaction(async (transaction) => {
      if ((await done(sequelize, transaction)).has(name)) return;
      await up(query, transaction);
      await sequelize.query('INSERT INTO `SequelizeMeta` (name) VALUES (?)', { transaction, replacements: [name] });
    });
  }
}
