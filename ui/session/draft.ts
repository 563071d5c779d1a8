import { parsePatch, printPatch, withKnownQuantities, withOldDefaults } from '@/core';
import type { Patch } from '@/core';
import { tellOnce } from '@/ui/parts/messages';
import { settings } from '@/ui/parts/settings';
import { aliveTabs, tabId } from './tab';

/** What is not saved yet, kept in the browser so that a crash or a lost server loses nothing. Each tab keeps its own. */
export interface Draft {
  readonly key: string;
  readonly baseRevision: number;
  readonly patch: Patch;
  /** The key of a save that was sent and not answered yet. */
  readonly sentKey: string | null;
  /** When it was kept; null of one that an older Fenvo kept. */
  readonly at: string | null;
}

const prefixOf = (id: string): string => `fenvo.draft.${id}`;
const ownKey = (id: string): string => `${prefixOf(id)}.${tabId()}`;

const OFF =
  'This browser blocks local storage, so there are no local drafts. Unsaved changes are lost when the page closes.';
const FULL = 'Browser storage is full. Unsaved changes are lost when the page closes.';

const NEAR = 'Browser storage is almost full. Save or delete large patches, or later changes may not be backed up.';
/** Browsers keep about five million characters for a site. */
const NEARLY_FULL = 4_400_000;

function roomTaken(store: Storage): number {
  let sum = 0;
  for (let i = 0; i < store.length; i++) {
    const key = store.key(i) ?? '';
    sum += key.length + (store.getItem(key)?.length ?? 0);
  }
  return sum;
}

/** Works on the browser's store, which may be blocked or full; that is told once. */
function withStore<T>(work: (store: Storage) => T, otherwise: T): T {
  try {
    return work(window.localStorage);
  } catch (error) {
    const full = error instanceof DOMException && error.name === 'QuotaExceededError';
    tellOnce(full ? FULL : OFF);
    return otherwise;
  }
}

export function keepDraft(id: string, baseRevision: number, patch: Patch, sentKey: string | null): void {
  if (!settings.getState().drafts) return;
  const draft = JSON.stringify({ baseRevision, patch: printPatch(patch), sentKey, at: new Date().toISOString() });
  withStore((store) => {
    if (roomTaken(store) + draft.length > NEARLY_FULL) tellOnce(NEAR);
    store.setItem(ownKey(id), draft);
  }, undefined);
}

export function dropDraft(id: string, key: string = ownKey(id)): void {
  withStore((store) => store.removeItem(key), undefined);
}

interface KeptDraft {
  readonly baseRevision: number;
  readonly patch: unknown;
  readonly sentKey?: string | null;
  readonly at?: string;
}

function read(key: string, text: string | null): Draft | null {
  try {
    const kept = JSON.parse(text ?? 'null') as KeptDraft | null;
    if (!kept) return null;
    // One without a time is as old as the defaults that it may have left out.
    const result = parsePatch(withKnownQuantities(kept.at === undefined ? withOldDefaults(kept.patch) : kept.patch));
    if (!result.ok) return null;
    const { baseRevision, sentKey = null, at = null } = kept;
    return { key, baseRevision, patch: result.value, sentKey, at };
  } catch {
    return null;
  }
}

/** What this very tab kept, before it was reloaded. */
export const readDraft = (id: string): Draft | null =>
  withStore((store) => read(ownKey(id), store.getItem(ownKey(id))), null);

/** What tabs kept that are gone, newest first: closed before they could save, or crashed. */
export async function leftDrafts(id: string): Promise<Draft[]> {
  const alive = await aliveTabs();
  return withStore((store) => {
    const keys = Array.from({ length: store.length }, (_, i) => store.key(i) ?? '');
    const mine = keys.filter(
      (key) => key === prefixOf(id) || key.slice(0, prefixOf(id).length + 1) === `${prefixOf(id)}.`,
    );
    const left = mine.filter((key) => key !== ownKey(id) && !alive.has(key.slice(prefixOf(id).length + 1)));
    const drafts = left.flatMap((key) => read(key, store.getItem(key)) ?? []);
    return drafts.sort((a, b) => (b.at ?? '').localeCompare(a.at ?? ''));
  }, []);
}
