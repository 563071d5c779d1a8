import { createStore } from 'zustand';
import type { Patch } from '@/core';
import { noHistory, record, redo, undo } from './history';
import type { History } from './history';

export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'unsaved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'offline' }
  | { readonly kind: 'conflict' };

export interface DeskState {
  readonly id: string;
  readonly patch: Patch;
  /** The server's revision that the patch is based on, and what it held. */
  readonly revision: number;
  readonly saved: Patch;
  readonly savedAt: string;
  readonly save: SaveState;
  readonly history: History;
  /** The chosen stage, by module id. */
  readonly selected: string | null;
  /** The socket that the strip ends at, below it where one came from by a joining path. */
  readonly trail: readonly string[];
  edit(label: string, change: (patch: Patch) => Patch, key?: string): void;
  undo(): void;
  redo(): void;
  select(id: string | null): void;
  showEnd(socket: string): void;
  /** Follows a joining path from the strip that ends at `from`. */
  showJoining(from: string | null, socket: string): void;
  back(depth: number): void;
  setSave(save: SaveState): void;
  confirm(revision: number, saved: Patch, at: string): void;
  replace(patch: Patch, revision: number, at: string): void;
}

export type DeskStore = ReturnType<typeof createDesk>;

export interface DeskStart {
  readonly id: string;
  readonly patch: Patch;
  readonly saved: Patch;
  readonly revision: number;
  readonly savedAt: string;
}

/** All that one open patch's desk holds. */
export function createDesk(start: DeskStart) {
  const clean = start.patch === start.saved;
  return createStore<DeskState>((set, get) => ({
    id: start.id,
    patch: start.patch,
    revision: start.revision,
    saved: start.saved,
    savedAt: start.savedAt,
    save: clean ? { kind: 'saved', at: start.savedAt } : { kind: 'unsaved' },
    history: noHistory,
    selected: null,
    trail: [],
    edit(label, change, key) {
      const before = get().patch;
      const after = change(before);
      if (after === before) return;
      const history = record(get().history, { label, before, after, key: key ?? null, at: Date.now() });
      set({ patch: after, history, save: saveOf(get(), after) });
    },
    undo() {
      const step = undo(get().history);
      if (step) set({ ...step, save: saveOf(get(), step.patch) });
    },
    redo() {
      const step = redo(get().history);
      if (step) set({ ...step, save: saveOf(get(), step.patch) });
    },
    select: (selected) => set({ selected }),
    showEnd: (socket) => set({ trail: [socket], selected: null }),
    showJoining(from, socket) {
      const { trail } = get();
      set({ trail: [...(trail.length === 0 && from !== null ? [from] : trail), socket] });
    },
    back: (depth) => set({ trail: get().trail.slice(0, depth + 1) }),
    setSave: (save) => set({ save }),
    confirm(revision, saved, at) {
      const clean = get().patch === saved;
      set({ revision, saved, savedAt: at, save: clean ? { kind: 'saved', at } : { kind: 'unsaved' } });
    },
    replace(patch, revision, at) {
      set({ patch, saved: patch, savedAt: at, revision, history: noHistory, save: { kind: 'saved', at } });
    },
  }));
}

/** A conflict stays one until it is settled; what was undone back to the saved patch is saved. */
function saveOf({ save, saved, savedAt }: DeskState, patch: Patch): SaveState {
  if (save.kind === 'conflict' || save.kind === 'saving') return save;
  return patch === saved ? { kind: 'saved', at: savedAt } : { kind: 'unsaved' };
}
