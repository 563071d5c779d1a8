import type { Patch } from '@/core';

/** One edit as a value: what was before, what is after, and its name. */
export interface Change {
  readonly label: string;
  readonly before: Patch;
  readonly after: Patch;
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

export function record(history: History, change: Change): History {
  const last = history.past.at(-1);
  const together = last && change.key !== null && last.key === change.key && change.at - last.at < TOGETHER;
  const next = together ? { ...change, before: last.before } : change;
  const past = together ? history.past.slice(0, -1) : history.past;
  return { past: [...past, next].slice(-LONGEST), future: [] };
}

export function undo(history: History): { history: History; patch: Patch } | null {
  const last = history.past.at(-1);
  if (!last) return null;
  return { history: { past: history.past.slice(0, -1), future: [last, ...history.future] }, patch: last.before };
}

export function redo(history: History): { history: History; patch: Patch } | null {
  const [next, ...future] = history.future;
  if (!next) return null;
  return { history: { past: [...history.past, { ...next, key: null }], future }, patch: next.after };
}
