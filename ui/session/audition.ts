import { createStore } from 'zustand';

const NONE: ReadonlySet<string> = new Set();

/** A stretch that can be looped, seconds after t = 0. */
export interface LoopSpan {
  readonly on: boolean;
  readonly from: number;
  readonly to: number;
}

/** What of a patch is heard while it plays, and what beside it; none of it is part of the patch. */
export interface Auditioned {
  /** Destinations by their socket, sources by their id: silenced, and heard alone. */
  readonly muted: ReadonlySet<string>;
  readonly soloed: ReadonlySet<string>;
  /** What the right ear hears instead, as a socket; empty for what is listened to. */
  readonly right: string;
  /** -1 only the left ear, 1 only the right one. */
  readonly balance: number;
  /** The voltage that is heard as a tone, as a socket; empty for none. */
  readonly tone: string;
  readonly loop: LoopSpan;
  /** Knobs that are played over their automation, until stop. */
  readonly resting: ReadonlySet<string>;
}

const start: Auditioned = {
  muted: NONE,
  soloed: NONE,
  right: '',
  balance: 0,
  tone: '',
  loop: { on: false, from: 0, to: 4 },
  resting: NONE,
};

export const audition = createStore<Auditioned>(() => start);

/** All is heard as it is in the patch. */
export const auditionAll = (): void => audition.setState(start);

/** The set with what it had not, or without what it had. */
export function toggled(set: ReadonlySet<string>, at: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(at)) next.add(at);
  return next;
}

/** Mutes a destination or a source, or hears it alone; or takes that back. */
export const toggleAudition = (what: 'muted' | 'soloed', at: string): void =>
  audition.setState((s) => ({ [what]: toggled(s[what], at) }));

/** Nothing is muted or heard alone any more. */
export const unmuteAll = (): void => audition.setState({ muted: NONE, soloed: NONE });

export const toggleLoop = (): void => audition.setState(({ loop }) => ({ loop: { ...loop, on: !loop.on } }));

/** Plays a knob over its automation until stop. */
export const playOver = (at: string): void =>
  audition.setState(({ resting }) => ({ resting: new Set([...resting, at]) }));

/** Automation turns all its knobs again. */
export const restNoMore = (): void => {
  if (audition.getState().resting.size > 0) audition.setState({ resting: NONE });
};
