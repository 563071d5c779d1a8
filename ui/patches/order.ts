import type { ListedPatch } from '@/wire/patches';

/** What the patches list is sorted by. */
export type Column = 'name' | 'arrives' | 'findings' | 'updatedAt';

export interface Order {
  readonly by: Column;
  readonly down: boolean;
}

/** Severity: an error weighs more than any number of warnings; an unreadable patch weighs most. */
const weightOf = ({ summary, fault }: ListedPatch): number => {
  if (fault !== null) return Infinity;
  const { error = 0, warning = 0, note = 0 } = summary?.findings ?? {};
  return error * 1e6 + warning * 1e3 + note;
};

/** The destination that a patch opens with, by name. */
const destinationOf = ({ summary }: ListedPatch): string =>
  summary?.ends.find((e) => e.at === summary.shown)?.label ?? summary?.ends[0]?.label ?? '';

const compare: Readonly<Record<Column, (a: ListedPatch, b: ListedPatch) => number>> = {
  name: (a, b) => a.name.localeCompare(b.name),
  arrives: (a, b) => destinationOf(a).localeCompare(destinationOf(b)),
  findings: (a, b) => (weightOf(a) === weightOf(b) ? 0 : weightOf(a) - weightOf(b)),
  updatedAt: (a, b) => a.updatedAt.localeCompare(b.updatedAt),
};

export interface Wanted {
  readonly words: string;
  readonly tags: readonly string[];
}

/** Whether all words stand somewhere in a patch's name, tags, notes or ends, and it has all tags. */
export function matches(patch: ListedPatch, { words, tags }: Wanted): boolean {
  const ends = patch.summary?.ends.map((e) => e.label).join(' ') ?? '';
  const text = `${patch.name} ${patch.tags.join(' ')} ${ends} ${patch.summary?.notes ?? ''}`.toLowerCase();
  const all = words.toLowerCase().split(/\s+/).filter(Boolean);
  return all.every((word) => text.includes(word)) && tags.every((tag) => patch.tags.includes(tag));
}

/** The patches that are looked for, in the order that was asked; those that are alike stay in the order they came. */
export function listPatches(patches: readonly ListedPatch[], wanted: Wanted, { by, down }: Order): ListedPatch[] {
  const way = down ? -1 : 1;
  return patches.filter((p) => matches(p, wanted)).sort((a, b) => way * compare[by](a, b));
}
