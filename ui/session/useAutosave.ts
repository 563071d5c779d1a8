import { useEffect } from 'react';
import { parsePatch, printPatch } from '@/core';
import type { Patch } from '@/core';
import { api, ApiFailure } from '@/ui/parts/api';
import type { ConflictDetails, StoredPatch } from '@/wire/patches';
import { Changes } from './changes';
import type { DeskStore } from './desk';
import { dropDraft, keepDraft } from './draft';
import { isOwnSave, noteSave } from './ownSaves';

/** After this much quiet, milliseconds. */
const QUIET = 500;
const RETRY = 3000;
/** A turning knob makes many patches; the draft follows at this pace, milliseconds. */
const DRAFT_EVERY = 100;

export interface Conflict {
  readonly theirs: StoredPatch;
}

/** A save that was sent: sent again under its key, it is recognised. */
interface Sent {
  readonly key: string;
  readonly patch: Patch;
  readonly base: number;
  readonly changes: readonly string[];
}

/** Saves what changes, one save after the other, and keeps a local draft until the server has it. */
class Autosave {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private draftTimer: ReturnType<typeof setTimeout> | undefined;
  private busy = false;
  /** The save whose answer never came. */
  private sent: Sent | null = null;
  private last: Patch;
  private readonly changes: Changes;
  private readonly stop: () => void;

  constructor(
    private readonly desk: DeskStore,
    private readonly onConflict: (conflict: Conflict) => void,
  ) {
    this.last = desk.getState().saved;
    this.changes = new Changes(desk.getState().history);
    this.stop = desk.subscribe(() => this.watch());
    window.addEventListener('pagehide', this.leave);
    document.addEventListener('visibilitychange', this.hidden);
    this.watch();
  }

  close(): void {
    this.stop();
    window.removeEventListener('pagehide', this.leave);
    document.removeEventListener('visibilitychange', this.hidden);
    this.leave();
    void this.save();
  }

  private readonly leave = (): void => {
    clearTimeout(this.timer);
    clearTimeout(this.draftTimer);
    this.draft();
  };

  private readonly hidden = (): void => {
    if (document.visibilityState === 'hidden') this.draft();
  };

  private draft(): void {
    this.draftTimer = undefined;
    const { id, patch, saved, revision } = this.desk.getState();
    if (patch !== saved) keepDraft(id, revision, patch, this.sent?.key ?? null);
  }

  private watch(): void {
    const { id, patch, saved, history } = this.desk.getState();
    this.changes.note(history);
    if (patch === this.last) return;
    this.last = patch;
    if (patch === saved) return dropDraft(id);
    this.draftTimer ??= setTimeout(() => this.draft(), DRAFT_EVERY);
    this.later(QUIET);
  }

  private later(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), ms);
  }

  private async save(): Promise<void> {
    const { id, revision, patch, saved, save } = this.desk.getState();
    if (this.busy || patch === saved || save.kind === 'conflict' || save.kind === 'deleted') return;
    // A save whose answer was lost is asked for again as it was: it may have been done.
    const again = this.sent?.base === revision ? this.sent : null;
    const sent = again ?? { key: crypto.randomUUID(), patch, base: revision, changes: this.changes.list };
    this.sent = sent;
    noteSave(id, sent.key);
    this.busy = true;
    this.desk.getState().setSave({ kind: 'saving' });
    try {
      const answer = await api.save(id, sent.base, printPatch(sent.patch), sent.key, sent.changes);
      this.sent = null;
      this.changes.saved(sent.changes.length);
      this.desk.getState().confirm(answer.revision, sent.patch, answer.updatedAt);
    } catch (error) {
      this.fail(error);
    } finally {
      this.busy = false;
    }
    this.after(patch);
  }

  /** What comes next: nothing, the newer patch, or the same again. A refusal waits for the next edit. */
  private after(tried: Patch): void {
    const { id, patch, saved, save } = this.desk.getState();
    if (patch === saved) dropDraft(id);
    else if (save.kind === 'offline') this.later(RETRY);
    else if (save.kind === 'unsaved' || patch !== tried) this.later(QUIET);
  }

  private fail(error: unknown): void {
    const { setSave } = this.desk.getState();
    if (!(error instanceof ApiFailure) || error.code === 'unreachable') return setSave({ kind: 'offline' });
    this.sent = null;
    if (error.code === 'conflict') {
      const { theirs } = error.details as ConflictDetails;
      const { id, confirm } = this.desk.getState();
      // What stands there is what this tab sent before it was loaded anew: it goes on from that.
      if (isOwnSave(id, theirs.saveKey)) return confirm(theirs.revision, patchOf(theirs), theirs.updatedAt);
      setSave({ kind: 'conflict' });
      this.onConflict({ theirs });
    } else if (error.code === 'deleted' || error.code === 'not-found') {
      setSave({ kind: 'deleted', forGood: error.code === 'not-found' });
    } else setSave({ kind: 'refused', message: error.message });
    this.draft();
  }
}

export function useAutosave(desk: DeskStore, onConflict: (conflict: Conflict) => void): void {
  useEffect(() => {
    const autosave = new Autosave(desk, onConflict);
    return () => autosave.close();
  }, [desk, onConflict]);
}

/** The patch of a stored document; what the server stores has been read by the same parser. */
export function patchOf(stored: Pick<StoredPatch, 'patch'>): Patch {
  const result = parsePatch(stored.patch);
  if (result.ok) return result.value;
  throw new Error(
    `The saved patch could not be read. ${result.errors.map((e) => `${e.path}: ${e.message}`).join('; ')}`,
  );
}
