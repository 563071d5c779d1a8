import type { FirstPaint } from '../wire/patches';
import { database } from './database';
import { PatchRow } from './models';
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
