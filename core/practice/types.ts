import type { Fault } from '../bench/faults';
import type { Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import type { Draws } from './draws';
import type { Seen } from './seen';

export const GROUPS = [
  'range',
  'units',
  'shape',
  'VCA',
  'time',
  'electrical',
  'spectrum',
  'knob',
  'fault',
  'ear',
] as const;
export type Group = (typeof GROUPS)[number];

export const LEVELS = [1, 2, 3, 4, 5] as const;
export type Level = (typeof LEVELS)[number];

export type AnswerSort = 'range' | 'volts' | 'unit' | 'knob' | 'choice' | 'fault' | 'order';

/** One of several answers: words, a voltage over time, or a rendering that is the patch with edits. */
export interface Choice {
  readonly text: string;
  readonly edits?: readonly Edit[];
  /** Volts, evenly over the patch’s window. */
  readonly trace?: readonly number[];
}

/** What is asked of a patch. */
export interface Ask {
  readonly text: string;
  /** Null where no one socket is asked about. */
  readonly at: string | null;
  readonly answer: AnswerSort;
  /** `low`, `high`, `peakToPeak`, `mean`, `rms`, `steady`, or the quantity of a reading. */
  readonly figure: string | null;
  readonly unit: string;
  readonly choices: readonly Choice[] | null;
  /** The knobs to set; none of them stands at the truth. */
  readonly knobs: readonly string[] | null;
  /** Sockets whose voltages, and what follows from them, a screen must not show. */
  readonly hidden: readonly string[];
}

/** A question about a patch, made from a seed; nothing in it gives the truth away. */
export interface Exercise {
  readonly skill: string;
  readonly level: Level;
  readonly seed: number;
  readonly patch: Patch;
  readonly ask: Ask;
}

export interface KnobValue {
  readonly at: string;
  readonly value: number;
}

export type Answer =
  | { readonly low: number; readonly high: number }
  | { readonly value: number }
  | { readonly knobs: readonly KnobValue[] }
  | { readonly choice: number }
  | { readonly order: readonly number[] }
  | { readonly faults: readonly Fault[]; readonly readings?: number };

/** A mistake that people make with a skill, as the patch that they had in mind, or as what they make of the figure. */
export interface Slip {
  /** What was mistaken, as a sentence. */
  readonly text: string;
  /** Makes the patch into the one that was answered for. */
  readonly edits?: readonly Edit[];
  /** What was answered in place of the truth. */
  readonly as?: (truth: Answer, seen: Seen) => Answer | null;
}

/** An exercise as a skill draws it, with what is kept from the learner. */
export interface Drawn {
  readonly patch: Patch;
  readonly text: string;
  readonly at?: string;
  readonly answer: AnswerSort;
  readonly figure?: string;
  /** Volts, if left out. */
  readonly unit?: string;
  readonly choices?: readonly Choice[];
  readonly knobs?: readonly string[];
  /** What is right, from the prediction of a patch; null where a draw is degenerate. */
  readonly truth: (seen: Seen) => Answer | null;
  readonly slips: readonly Slip[];
  /** The patch whose prediction is the truth, where it is not the one that is shown. */
  readonly solved?: Patch;
  readonly fault?: Fault;
  /** Sockets to cover beside what is asked for. */
  readonly hidden?: readonly string[];
}

/** Something of the craft that can be practised. */
export interface Skill {
  readonly name: string;
  readonly group: Group;
  /** What is practised, as a title. */
  readonly text: string;
  readonly needsSound?: true;
  /** An exercise of a level; null where what was drawn is no good one. */
  draw(d: Draws, level: Level): Drawn | null;
}
