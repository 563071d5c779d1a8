import type { WalkthroughStep } from '@/core/practice';

/** Where a walkthrough stands: at which step, and what of it is going on. */
export interface PlayerState {
  readonly at: number;
  /** A question waits, knobs are moving, or the step is done. */
  readonly phase: 'asking' | 'moving' | 'resting';
  /** It goes on by itself. */
  readonly runs: boolean;
  /** It stands still, in the middle of a movement too. */
  readonly paused: boolean;
  /** What was answered to the question of this step; null where it was not, or the answer was asked for. */
  readonly answer: number | null;
}

export type PlayerEvent =
  | { readonly is: 'next' | 'back' | 'show' | 'arrived' | 'play' | 'pause' }
  | { readonly is: 'goTo'; readonly at: number }
  | { readonly is: 'answer'; readonly value: number };

type Steps = readonly Pick<WalkthroughStep, 'question'>[];

const entered = (steps: Steps, at: number): Pick<PlayerState, 'at' | 'phase' | 'answer'> => ({
  at,
  phase: steps[at]?.question ? 'asking' : 'moving',
  answer: null,
});

export const startOf = (steps: Steps): PlayerState => ({ ...entered(steps, 0), runs: false, paused: false });

/** What comes of an event; the same state where it means nothing there. */
export function nextState(steps: Steps, state: PlayerState, event: PlayerEvent): PlayerState {
  const last = steps.length - 1;
  switch (event.is) {
    case 'next':
      return state.at < last ? { ...state, ...entered(steps, state.at + 1), paused: false } : { ...state, runs: false };
    case 'back':
      return nextState(steps, state, { is: 'goTo', at: state.at - 1 });
    case 'goTo':
      // What one goes back to, or ahead to, is there at once.
      return event.at >= 0 && event.at <= last && event.at !== state.at
        ? { ...state, at: event.at, phase: 'resting', answer: null, paused: false }
        : state;
    case 'answer':
      return state.phase === 'asking' ? { ...state, phase: 'moving', answer: event.value } : state;
    case 'show':
      return state.phase === 'asking' ? { ...state, phase: 'moving' } : state;
    case 'arrived':
      return state.phase === 'moving' ? { ...state, phase: 'resting' } : state;
    case 'play':
      // From the end it begins anew.
      return state.at === last && state.phase === 'resting'
        ? { ...startOf(steps), runs: true }
        : { ...state, runs: true, paused: false };
    case 'pause':
      return state.runs ? { ...state, runs: false, paused: state.phase === 'moving' } : state;
  }
}

const LEAST_READING = 2500;
const READING_PER_LETTER = 55;

/** How long a step stands before the next begins by itself, milliseconds. */
export const readingTime = (text: string): number => LEAST_READING + READING_PER_LETTER * text.length;
