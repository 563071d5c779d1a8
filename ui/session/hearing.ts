import { createStore } from 'zustand';
import type { Patch } from '@/core';

/** What of the sound can be opened, before it plays or while it does. */
export type SoundPart = 'controls' | 'keyboard' | 'pad' | 'listening' | 'export';

/** Whether the patch is heard, for all who draw something of it. */
export const hearing = createStore<{
  /** The play bar is there. */
  readonly open: boolean;
  readonly playing: boolean;
  /** Play or stop, from the start, and the other side of a comparison: asked for from elsewhere, not answered yet. */
  readonly asked: boolean;
  readonly restarted: boolean;
  readonly swapped: boolean;
  /** A knob is to be recorded anew. */
  readonly recorded: boolean;
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
  recorded: false,
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

let played = false;

/** Whether what is edited now is played by a hand: on a fader, a key, a controller. */
export const isPlayed = (): boolean => played;

/** Edits as a hand plays: what jumps then is meant. */
export function playing(edit: () => void): void {
  played = true;
  try {
    edit();
  } finally {
    played = false;
  }
}

/** Plays, or stops at once. */
export const playOrStop = (): void => hearing.setState(({ asked }) => ({ open: true, asked: !asked }));

/** Plays from t = 0. */
export const playFromStart = (): void => hearing.setState({ open: true, restarted: true });

/** Hears the other side of what is compared. */
export const swapSides = (): void => hearing.setState(({ swapped }) => ({ swapped: !swapped }));

/** Records what is turned from now on; plays, where it does not. */
export const recordNow = (): void => {
  openSound('controls');
  hearing.setState({ recorded: true });
};

/** Hears another state of the patch, beside it as it is. */
export const hear = (name: string, patch: Patch): void => hearing.setState({ open: true, offered: { name, patch } });

/** What nobody has answered is forgotten with the editor that it was asked of: no other begins to sound by itself. */
export const forgetAsked = (): void =>
  hearing.setState({ asked: false, restarted: false, swapped: false, recorded: false, offered: null });
