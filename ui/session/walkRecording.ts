import { createStore } from 'zustand';
import { applyEdits } from '@/core';
import type { Patch } from '@/core';
import { isFull } from '@/core/practice/recordWalkthrough';
import type { Gesture } from '@/core/practice/recordWalkthrough';
import type { DeskStore } from './desk';
import type { Change } from './history';

/** A walkthrough that is being recorded: what has been done in the editor since it began. */
interface WalkRecording {
  readonly on: boolean;
  readonly base: Patch | null;
  readonly gestures: readonly Gesture[];
  /** No more steps are taken. */
  readonly full: boolean;
}

const off: WalkRecording = { on: false, base: null, gestures: [], full: false };
export const walkRecording = createStore<WalkRecording>(() => off);

let end: (() => void) | null = null;

/** What the editor’s history did since, as gestures; what was undone is none. */
function gesturesSince(base: Patch, changes: readonly Change[], places: readonly (string | null)[]): Gesture[] {
  let patch = base;
  return changes.map((change, i) => {
    patch = applyEdits(patch, change.edits);
    return { label: change.label, at: places[i] ?? null, patch };
  });
}

/** Every change from now on becomes a step. */
export function startRecording(desk: DeskStore): void {
  endRecording();
  const base = desk.getState().patch;
  const already = desk.getState().history.past.length;
  const places: (string | null)[] = [];
  walkRecording.setState({ on: true, base, gestures: [], full: false });
  end = desk.subscribe(({ history, trail }, before) => {
    if (history === before.history) return;
    const changes = history.past.slice(already);
    if (changes.length > 0) places[changes.length - 1] = trail[0] ?? null;
    const gestures = gesturesSince(base, changes, places);
    if (!isFull(gestures.slice(0, -1))) walkRecording.setState({ gestures, full: isFull(gestures) });
  });
}

/** Nothing more is recorded, and what was is forgotten. */
export function endRecording(): void {
  end?.();
  end = null;
  walkRecording.setState(off);
}
