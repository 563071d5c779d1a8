import { LISTS } from '../document/state';
import type { ListKey } from '../document/state';
import type { Patch } from '../document/types';
import { applyEdits } from './edit';
import type { Edit } from './edit';

const VALUES = ['name', 'notes', 'settings', 'extra'] as const satisfies readonly (keyof Patch)[];

/** What of a list differs, between what both begin and end with; null where nothing does. */
function splice<K extends ListKey>(list: K, a: Patch[K], b: Patch[K]): Edit | null {
  const shortest = Math.min(a.length, b.length);
  let head = 0;
  while (head < shortest && a[head] === b[head]) head++;
  let tail = 0;
  while (tail < shortest - head && a[a.length - 1 - tail] === b[b.length - 1 - tail]) tail++;
  if (head + tail === a.length && a.length === b.length) return null;
  const insert = b.slice(head, b.length - tail);
  return { do: 'splice', list, at: head, remove: a.length - head - tail, insert } as Edit;
}

/**
 * The edits that make `b` of `a`, exactly, to the order of every list. Entries are told apart by identity, so that
 * patches of one history differ in little; of two that share nothing, all is put anew.
 */
export function editsBetween(a: Patch, b: Patch): Edit[] {
  if (a === b) return [];
  const put = Object.fromEntries(VALUES.filter((key) => a[key] !== b[key]).map((key) => [key, b[key]]));
  const values: Edit[] = Object.keys(put).length > 0 ? [{ do: 'put', put }] : [];
  return [...values, ...LISTS.flatMap((list) => splice(list, a[list], b[list]) ?? [])];
}

/** The edits that take edits back: done after them, they leave the patch that was before. */
export const inverseOf = (before: Patch, edits: readonly Edit[]): Edit[] =>
  editsBetween(applyEdits(before, edits), before);

/** Whether two patches of one history hold the same. */
export const isSame = (a: Patch, b: Patch): boolean => a === b || editsBetween(a, b).length === 0;
