import { createStore } from 'zustand';
import type { Patch } from '@/core';

/** A patch that is looked at before it is applied. */
export interface Preview {
  readonly patch: Patch;
  /** The destination that it is about; left out: the one that is shown. */
  readonly show?: string;
  /** Where its knobs would stand, by `module.param`. */
  readonly knobs?: ReadonlyMap<string, number>;
}

interface Entry {
  readonly key: string;
  readonly preview: Preview;
}

interface Previews {
  /** Under the pointer or the focus. */
  readonly hovered: Entry | null;
  /** Clicked: it stays until it is clicked again. */
  readonly held: Entry | null;
  /** Of a choice that is being made; it goes before all others. */
  readonly offered: Preview | null;
}

const NONE: Previews = { hovered: null, held: null, offered: null };

export const previews = createStore<Previews>(() => NONE);

/** The one preview that is shown. */
export const shownPreview = ({ offered, hovered, held }: Previews): Preview | null =>
  offered ?? hovered?.preview ?? held?.preview ?? null;

export const isPreviewed = (s: Previews, key: string): boolean => (s.hovered ?? s.held)?.key === key;

export const hoverPreview = (key: string, preview: Preview | null): void =>
  previews.setState({ hovered: preview && { key, preview } });

export const leavePreview = (key: string): void =>
  previews.setState((s) => (s.hovered?.key === key ? { hovered: null } : s));

/** Holds a preview, or lets it go where it is held already. */
export const holdPreview = (key: string, preview: Preview | null): void =>
  previews.setState(({ held }) =>
    held?.key === key ? { hovered: null, held: null } : { held: preview && { key, preview } },
  );

/** What is gone from the screen is previewed no more. */
export const dropPreview = (key: string): void =>
  previews.setState((s) => ({
    hovered: s.hovered?.key === key ? null : s.hovered,
    held: s.held?.key === key ? null : s.held,
  }));

export const offerPreview = (offered: Preview | null): void => previews.setState({ offered });

/** Ends all previews; says whether there was one. */
export function endPreviews(): boolean {
  const had = shownPreview(previews.getState()) !== null;
  if (had) previews.setState(NONE, true);
  return had;
}
