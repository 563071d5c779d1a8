import { inMegabytes } from '@/wire/sizes';
import { createStore } from 'zustand';
import { LIMITS, applyEdits, buildGraph, isSame, openingEnd, parsePatch, printPatch } from '@/core';
import type { Edit, Patch } from '@/core';
import { typedIn } from '@/ui/parts/typing';
import type { EditDesk } from './edit';
import { noHistory, record, redo, undo } from './history';
import type { History, UndoStep } from './history';

export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'unsaved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'offline' }
  | { readonly kind: 'conflict' }
  /** Deleted elsewhere, for good or not. */
  | { readonly kind: 'deleted'; readonly forGood: boolean }
  /** Refused for a reason of its own; tried again after the next edit. */
  | { readonly kind: 'refused'; readonly message: string };

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
  /** More stages that are chosen beside it, for what is done to all at once. */
  readonly group: readonly string[];
  /** The socket that the strip ends at, below it where one came from by a joining path. */
  readonly trail: readonly string[];
  edit: EditDesk;
  undo(): void;
  redo(): void;
  select(id: string | null): void;
  /** Adds a stage to what is chosen, or takes it out. */
  selectAlso(id: string): void;
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

/** Why a patch could not be stored, or null: what the parser refuses never gets into the editor. */
function faultOf(patch: Patch): string | null {
  const printed = printPatch(patch);
  const large = tooLarge(printed);
  if (large !== null) return large;
  const result = parsePatch(printed);
  const first = result.ok ? null : result.errors[0];
  return first ? `${first.path} ${first.message}.` : null;
}

const sizeOf = (x: unknown): number => new TextEncoder().encode(JSON.stringify(x) ?? '').length;

/** What a patch would be too large with, and what is large in it. */
function tooLarge(printed: ReturnType<typeof printPatch>): string | null {
  const bytes = sizeOf(printed);
  if (bytes <= LIMITS.bytes) return null;
  const parts = Object.entries(printed).flatMap(([key, value]) =>
    key === 'modules' && Array.isArray(value)
      ? (value as { id: string }[]).map((m) => [`module ${m.id}`, sizeOf(m)] as const)
      : [[key, sizeOf(value)] as const],
  );
  const largest = parts.sort((a, b) => b[1] - a[1]).slice(0, 3);
  const list = largest.map(([what, size]) => `${what} ${inMegabytes(size)}`).join(', ');
  return `the patch would be ${inMegabytes(bytes)}; the limit is ${inMegabytes(LIMITS.bytes)}. Largest parts: ${list}.`;
}

/** All that one open patch's editor holds. */
export function createDesk(start: DeskStart, onRefused: (message: string) => void = () => undefined) {
  const clean = start.patch === start.saved;
  const end = openingEnd(buildGraph(start.patch));
  return createStore<DeskState>((set, get) => ({
    id: start.id,
    patch: start.patch,
    revision: start.revision,
    saved: start.saved,
    savedAt: start.savedAt,
    save: clean ? { kind: 'saved', at: start.savedAt } : { kind: 'unsaved' },
    history: noHistory,
    selected: null,
    group: [],
    trail: end === null ? [] : [end],
    edit(label, edits, key, joins = false) {
      const before = get().patch;
      const after = made(get(), edits);
      if (after === before) return;
      // A knob that turns keeps its own limits; all else is read as the server will read it.
      const fault = key === undefined ? faultOf(after) : null;
      if (fault !== null) return onRefused(`Not changed: ${fault}`);
      // All that comes of one go at a field is one act, however often it is put on the way.
      const typed = key === undefined ? typedIn() : null;
      const act = { label, edits, key: key ?? typed, at: Date.now(), joins: joins || typed !== null };
      const history = record(get().history, before, after, act);
      set({ patch: after, history, save: saveOf(get(), after) });
    },
    undo() {
      const step = undo(get().history);
      if (step) set(stepped(get(), step));
    },
    redo() {
      const step = redo(get().history);
      if (step) set(stepped(get(), step));
    },
    select: (selected) => set({ selected, group: [] }),
    selectAlso(id) {
      const { selected, group } = get();
      if (selected === null) set({ selected: id });
      else if (id === selected) set({ selected: group[0] ?? null, group: group.slice(1) });
      else set({ group: group.includes(id) ? group.filter((x) => x !== id) : [...group, id] });
    },
    showEnd: (socket) => set({ trail: [socket], selected: null, group: [] }),
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

/** What edits make of the patch: the saved one itself where they lead back to it. */
function made({ patch, saved }: DeskState, edits: readonly Edit[]): Patch {
  const after = applyEdits(patch, edits);
  return isSame(after, patch) ? patch : isSame(after, saved) ? saved : after;
}

function stepped(state: DeskState, { history, edits }: UndoStep): Pick<DeskState, 'patch' | 'history' | 'save'> {
  const patch = made(state, edits);
  return { patch, history, save: saveOf(state, patch) };
}

/** A conflict stays one until it is settled; what was undone back to the saved patch is saved. */
function saveOf({ save, saved, savedAt }: DeskState, patch: Patch): SaveState {
  if (save.kind === 'conflict' || save.kind === 'saving' || save.kind === 'deleted') return save;
  return patch === saved ? { kind: 'saved', at: savedAt } : { kind: 'unsaved' };
}
