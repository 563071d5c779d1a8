import { createStore } from 'zustand';
import type { Patch } from '@/core';

/** Whether the patch is heard, for all who draw something of it. */
/** What of the sound can be opened, before it plays or while it does. */
export type SoundPart = 'controls' | 'keyboard' | 'pad' | 'export';

export const hearing = createStore<{
  /** The play bar is there. */
  readonly open: boolean;
  readonly playing: boolean;
  /** Play or stop, from the start, and the other side of a comparison: asked for from elsewhere, not answered yet. */
  readonly asked: boolean;
  readonly restarted: boolean;
  readonly swapped: boolean;
  /** The parts of the bar that are open. */
  readonly parts: ReadonlySet<SoundPart>;
  /** Another state of the patch to hear now. */
  readonly offered: { readonly name: string; readonly patch: Patch } | null;
}>(() => ({
  open: false,
  playing: false,
  asked: false,
  restarted: false,
  swapped: false,
  parts: new Set<SoundPart>(),
  offered: null,
}));

/** Opens a part of the play bar, or folds it. */
export const openSound = (part: SoundPart, on = true): void =>
  hearing.setState(({ parts }) => {
    const next = new Set(parts);
    if (on) next.add(part);
    else next.delete(part);
    // Keyboard and pad stand among the controls.
    if (on && (part === 'keyboard' || part === 'pad')) next.add('controls');
    return { open: true, parts: next };
  });

/** Folds the play bar. */
export const closeSound = (): void => hearing.setState({ open: false, parts: new Set() });

/** Plays, or stops at once. */
export const playOrStop = (): void => hearing.setState(({ asked }) => ({ open: true, asked: !asked }));

/** Plays from t = 0. */
export const playFromStart = (): void => hearing.setState({ open: true, restarted: true });

/** Hears the other side of what is compared. */
export const swapSides = (): void => hearing.setState(({ swapped }) => ({ swapped: !swapped }));

/** Hears another state of the patch, beside it as it is. */
export const hear = (name: string, patch: Patch): void => hearing.setState({ open: true, offered: { name, patch } });

/** What nobody has answered is forgotten with the editor that it was asked of: no other begins to sound by itself. */
export const forgetAsked = (): void =>
  hearing.setState({ asked: false, restarted: false, swapped: false, offered: null });
