import { applyEdits, editsBetween } from '@/core';
import type { Edit, Patch } from '@/core';

/** What was done in one go: its name, its edits, and those that take it back. */
export interface Change {
  readonly label: string;
  readonly edits: readonly Edit[];
  readonly inverse: readonly Edit[];
  /** Changes of the same thing in one go count as one. */
  readonly key: string | null;
  readonly at: number;
}

export interface History {
  readonly past: readonly Change[];
  readonly future: readonly Change[];
}

export const noHistory: History = { past: [], future: [] };

/** Moves of one knob closer together than this are one move, milliseconds. */
const TOGETHER = 900;
const LONGEST = 500;

/** Edits that are about to be done, with when and under which name. */
export interface Act extends Omit<Change, 'inverse'> {
  /** Belongs to the last of its key, however long ago that was. */
  readonly joins?: boolean;
}

/** Notes what an act made of a patch. */
export function record(history: History, before: Patch, after: Patch, { joins = false, ...act }: Act): History {
  const last = history.past.at(-1);
  const together = last && act.key !== null && last.key === act.key && (joins || act.at - last.at < TOGETHER);
  const start = together ? applyEdits(before, last.inverse) : before;
  const edits = together ? editsBetween(start, after) : act.edits;
  const change = { ...act, edits, inverse: editsBetween(after, start) };
  const past = together ? history.past.slice(0, -1) : history.past;
  return { past: [...past, change].slice(-LONGEST), future: [] };
}

/** A step back or forth: the history after it, and the edits that make it. */
export interface UndoStep {
  readonly history: History;
  readonly edits: readonly Edit[];
}

export function undo({ past, future }: History): UndoStep | null {
  const last = past.at(-1);
  return last ? { history: { past: past.slice(0, -1), future: [last, ...future] }, edits: last.inverse } : null;
}

export function redo({ past, future }: History): UndoStep | null {
  const [next, ...rest] = future;
  return next ? { history: { past: [...past, { ...next, key: null }], future: rest }, edits: next.edits } : null;
}
