import type { FirstPaint, FoundPatches, PatchesAbout } from '../wire/patches';
import { check } from './beside/tasks';
import { searchSchema } from './checks/schemas';
import { database } from './library';
import { PatchRow } from './models';
import { Patches } from './patches';
import { PatchSearch } from './patchSearch';
import { Summaries } from './summaries';

/** What the first paint of an open patch shows: its name, and, once they are worked out, its readings and stages. */
export async function firstPaintOf(id: string): Promise<FirstPaint | null> {
  const db = await database();
  const row = await PatchRow.findByPk(id, {
    attributes: ['id', 'name', 'revision', 'summary', 'summaryRevision', 'deletedAt'],
  });
  if (!row || row.deletedAt !== null) return null;
  const { summary } = new Summaries(db).of(row);
  return { name: row.name, ends: summary?.ends ?? [], shown: summary?.shown ?? null, strip: summary?.strip ?? [] };
}

/** Rows that come with the page: what a window shows of them. */
const FIRST = 20;

/** What the first paint of the patches list shows: the rows that were changed last. */
export async function firstPatches(): Promise<{ readonly found: FoundPatches; readonly about: PatchesAbout }> {
  const db = await database();
  const search = new PatchSearch(db, new Patches(db));
  const [found, about] = await Promise.all([
    search.rows(check(searchSchema, { count: FIRST }, 'query')),
    search.about(),
  ]);
  return { found, about };
}
