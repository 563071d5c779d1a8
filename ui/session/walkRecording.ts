import { createStore } from 'zustand';
import type { Patch } from '@/core';
import type { DeskStore } from './desk';

/** A walkthrough that is being recorded: where it began. What was done since is the editor’s history. */
export interface WalkRecording {
  readonly base: Patch;
  /** So many changes were in the history before. */
  readonly already: number;
  /** The destination that was looked at, for each change since. */
  readonly places: readonly (string | null)[];
}

export const walkRecording = createStore<{ readonly now: WalkRecording | null }>(() => ({ now: null }));

let unfollow: (() => void) | null = null;

/** Nothing more is recorded, and what was is forgotten. */
export function endRecording(): void {
  unfollow?.();
  unfollow = null;
  walkRecording.setState({ now: null });
}

/** Every change from now on becomes a step. */
export function startRecording(desk: DeskStore): void {
  endRecording();
  const { patch, history } = desk.getState();
  const start: WalkRecording = { base: patch, already: history.past.length, places: [] };
  walkRecording.setState({ now: start });
  const places: (string | null)[] = [];
  unfollow = desk.subscribe((now, before) => {
    const last = now.history.past.length - start.already - 1;
    if (now.history === before.history || last < 0) return;
    places[last] = now.trail[0] ?? null;
    walkRecording.setState({ now: { ...start, places: [...places] } });
  });
}
