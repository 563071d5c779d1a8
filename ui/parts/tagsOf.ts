import type { ListedPatch } from '@/wire/patches';

/** Every tag that is in use, in the order of the alphabet. */
export const tagsOf = (patches: readonly Pick<ListedPatch, 'tags'>[]): string[] =>
  [...new Set(patches.flatMap((p) => p.tags))].sort((a, b) => a.localeCompare(b));
