import { useEffect } from 'react';
import { parsePatch, printPatch } from '@/core';
import type { Patch } from '@/core';
import { api, ApiFailure } from './api';
import type { StoredPatch } from './api';
import type { DeskStore } from './desk';
import { dropDraft, keepDraft } from './draft';

/** After this much quiet, milliseconds. */
const QUIET = 500;
const RETRY = 3000;
/** A turning knob makes many patches; the draft follows at this pace, milliseconds. */
const DRAFT_EVERY = 100;

export interface Conflict {
  readonly theirs: StoredPatch;
}

/** Saves what changes, soon after it changes; keeps a local draft until the server has it. */
export function useAutosave(desk: DeskStore, onConflict: (conflict: Conflict) => void): void {
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let draftTimer: ReturnType<typeof setTimeout> | undefined;
    let busy = false;
    const later = (ms: number): void => {
      clearTimeout(timer);
      timer = setTimeout(() => void save(), ms);
    };
    const save = async (): Promise<void> => {
      const { id, revision, patch, saved, save: state } = desk.getState();
      if (busy || patch === saved || state.kind === 'conflict') return;
      busy = true;
      desk.getState().setSave({ kind: 'saving' });
      try {
        const answer = await api.save(id, revision, printPatch(patch));
        desk.getState().confirm(answer.revision, patch, answer.updatedAt);
      } catch (error) {
        fail(error);
      } finally {
        busy = false;
      }
      const now = desk.getState();
      if (now.patch === now.saved) dropDraft(id);
      else if (now.save.kind !== 'conflict') later(now.save.kind === 'offline' ? RETRY : QUIET);
    };
    const fail = (error: unknown): void => {
      if (error instanceof ApiFailure && error.code === 'conflict') {
        desk.getState().setSave({ kind: 'conflict' });
        onConflict({ theirs: (error.details as { theirs: StoredPatch }).theirs });
      } else desk.getState().setSave({ kind: 'offline' });
    };
    let last: Patch = desk.getState().saved;
    const draft = (): void => {
      draftTimer = undefined;
      const now = desk.getState();
      if (now.patch !== now.saved) keepDraft(now.id, now.revision, now.patch);
    };
    const watch = (): void => {
      const { id, patch } = desk.getState();
      if (patch === last) return;
      last = patch;
      if (patch === desk.getState().saved) return dropDraft(id);
      draftTimer ??= setTimeout(draft, DRAFT_EVERY);
      later(QUIET);
    };
    const stop = desk.subscribe(watch);
    watch();
    return () => {
      stop();
      clearTimeout(timer);
      clearTimeout(draftTimer);
      draft();
      void save();
    };
  }, [desk, onConflict]);
}

/** The patch of a stored document; what the server stores has been read by the same parser. */
export function patchOf(stored: Pick<StoredPatch, 'patch'>): Patch {
  const result = parsePatch(stored.patch);
  if (result.ok) return result.value;
  throw new Error(`The stored patch cannot be read. ${result.errors.map((e) => `${e.path}: ${e.message}`).join('; ')}`);
}
