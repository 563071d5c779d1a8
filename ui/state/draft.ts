import { parsePatch, printPatch } from '@/core';
import type { Patch } from '@/core';

/** What is not saved yet, kept in the browser so that a crash or a lost server loses nothing. */
export interface Draft {
  readonly baseRevision: number;
  readonly patch: Patch;
}

const keyOf = (id: string): string => `fenvo.draft.${id}`;

export function keepDraft(id: string, baseRevision: number, patch: Patch): void {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify({ baseRevision, patch: printPatch(patch) }));
  } catch {
    // A full or closed store: the server's copy is then the only one, and the save state on screen says whether it is up to date.
  }
}

export function dropDraft(id: string): void {
  localStorage.removeItem(keyOf(id));
}

export function readDraft(id: string): Draft | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as {
      baseRevision: number;
      patch: unknown;
    } | null;
    const result = kept && parsePatch(kept.patch);
    return kept && result?.ok ? { baseRevision: kept.baseRevision, patch: result.value } : null;
  } catch {
    return null;
  }
}
