import { createStore } from 'zustand';
import type { Patch } from '@/core';

/** Whether the patch is heard, for all who draw something of it. */
export const hearing = createStore<{
  /** The play bar is there. */
  readonly open: boolean;
  readonly playing: boolean;
  /** Play or stop, and the other side of a comparison, were asked for from elsewhere and are not answered yet. */
  readonly asked: boolean;
  readonly swapped: boolean;
  /** Another state of the patch that somebody wants to hear now. */
  readonly offered: { readonly name: string; readonly patch: Patch } | null;
}>(() => ({ open: false, playing: false, asked: false, swapped: false, offered: null }));

/** Plays, or stops at once. */
export const playOrStop = (): void => hearing.setState(({ asked }) => ({ open: true, asked: !asked }));

/** Hears the other side of what is compared. */
export const swapSides = (): void => hearing.setState(({ swapped }) => ({ swapped: !swapped }));

/** Hears another state of the patch, beside it as it is. */
export const hear = (name: string, patch: Patch): void => hearing.setState({ open: true, offered: { name, patch } });

/** What nobody has answered is forgotten with the desk that it was asked of: no other begins to sound by itself. */
export const forgetAsked = (): void => hearing.setState({ asked: false, swapped: false, offered: null });
