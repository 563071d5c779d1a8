import type { SearchIdsRequest, Wanted } from '@/wire/requests';

/** All patches, the last that was changed first. */
export const everything: Wanted = { words: '', tags: [], uses: '', only: [], by: 'updatedAt', down: true };

/** Whether some patches are looked for, not all. */
export const isNarrowed = ({ words, tags, uses, only }: Wanted): boolean =>
  words.trim() !== '' || tags.length > 0 || uses !== '' || only.length > 0;

/** As it is asked: with the rack that is chosen, and when this month began. */
export const askedOf = (wanted: Wanted, rack: string, now: Date): SearchIdsRequest => ({
  ...wanted,
  words: wanted.words.slice(0, 200),
  rack,
  since: new Date(now.getFullYear(), now.getMonth()).toISOString(),
});
