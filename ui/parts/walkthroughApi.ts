import { parseWalkthrough } from '@/core/practice';
import type { Walkthrough } from '@/core/practice';
import { builtWalkthroughs } from '@/core/practice/walkthroughs';
import { call } from './api';
import { saveFile } from './files';
import type { StoredWalkthrough } from '@/wire/practice';
import type { Document } from '@/wire/patches';
import type { AddWalkthroughRequest, SaveWalkthroughRequest } from '@/wire/requests';

const at = (id: string): string => `/walkthroughs/${encodeURIComponent(id)}`;

export const walkthroughApi = {
  list: (deleted = false) =>
    call<{ walkthroughs: StoredWalkthrough[] }>('GET', `/walkthroughs${deleted ? '?deleted=true' : ''}`).then(
      (x) => x.walkthroughs,
    ),
  get: (id: string) => call<StoredWalkthrough>('GET', at(id)),
  add: (walkthrough: Document) =>
    call<StoredWalkthrough>('POST', '/walkthroughs', { walkthrough } satisfies AddWalkthroughRequest),
  save: (id: string, baseRevision: number, walkthrough: Document) =>
    call<StoredWalkthrough>('PUT', at(id), { walkthrough, baseRevision } satisfies SaveWalkthroughRequest),
  remove: (id: string) => call<StoredWalkthrough>('DELETE', at(id)),
  restore: (id: string) => call<StoredWalkthrough>('POST', `${at(id)}/restore`),
};

/** A walkthrough by its id: one that ships with Fenvo, else one of one’s own. */
export async function openWalkthrough(id: string): Promise<Walkthrough> {
  const built = builtWalkthroughs.find((b) => b.id === id);
  return readWalkthrough(built ? built.document : (await walkthroughApi.get(id)).walkthrough);
}

/** @throws Error with the first fault’s place. */
export function readWalkthrough(json: unknown): Walkthrough {
  const read = parseWalkthrough(json);
  if (read.ok) return read.value;
  const [first] = read.errors;
  throw new Error(`This walkthrough could not be read. ${first?.path ?? ''} ${first?.message ?? ''}`);
}

/** Hands a walkthrough to the browser as a file. */
export function downloadWalkthrough(document: Document): void {
  const name = `${typeof document.title === 'string' ? document.title : 'walkthrough'}.fenvo-walkthrough.json`;
  saveFile(name, new Blob([`${JSON.stringify(document, null, 2)}\n`], { type: 'application/json' }));
}
