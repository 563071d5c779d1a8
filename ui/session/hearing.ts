import { createStore } from 'zustand';
import type { Patch } from '@/core';

/** Whether the patch is heard, for all who draw something of it. */
export const hearing = createStore<{
  /** The play bar is there. */
  readonly open: boolean;
  readonly playing: boolean;
  /** How often play or stop, and the other side of a comparison, were asked for from elsewhere. */
  readonly asked: number;
  readonly swapped: number;
  /** Another state of the patch that somebody wants to hear now. */
  readonly offered: { readonly name: string; readonly patch: Patch } | null;
}>(() => ({ open: false, playing: false, asked: 0, swapped: 0, offered: null }));

/** Plays, or stops at once. */
export const playOrStop = (): void => hearing.setState(({ asked }) => ({ open: true, asked: asked + 1 }));

/** Hears the other side of what is compared. */
export const swapSides = (): void => hearing.setState(({ swapped }) => ({ swapped: swapped + 1 }));

/** Hears another state of the patch, beside it as it is. */
export const hear = (name: string, patch: Patch): void => hearing.setState({ open: true, offered: { name, patch } });
