import { partsOf } from '../document/sockets';
import type { Edit } from '../edit/edit';
import type { Want } from '../document/targets';
import type { ChannelLimits } from '../rack/limits';
import type { SimulateOptions } from '../simulate/types';

export interface SolveOptions {
  /** `module.param` of the knobs that may turn; left out: all hand knobs of the stages and ends behind the targets. */
  readonly free?: readonly string[];
  /** Knobs that may not turn although they are not locked. */
  readonly held?: readonly string[];
  /** Switches and jumpers of those modules may be set too. */
  readonly jumpers?: boolean;
  /** Knobs stop at steps of 0.5% of their travel. */
  readonly rounded?: boolean;
  /** Under a moving hand: one answer, with the knobs of the answer before where they do, and without what takes time. */
  readonly live?: boolean;
  /** The best answer alone, without its spread and sensitivity. */
  readonly plain?: boolean;
  /** Bounds as close as a prediction's: enough where what is found is predicted once more. */
  readonly rough?: boolean;
  /** The knobs that moved in the answer before. */
  readonly prefer?: readonly string[];
  /** What owned channels allow of knobs and switches. */
  readonly channels?: ChannelLimits;
  readonly asset?: SimulateOptions['asset'];
  /** Seconds after which it ends with the best so far; by default 2 s, or 10 s where the patch must be run. */
  readonly seconds?: number;
  /** Called now and then with the progress, 0..1. */
  readonly progress?: (share: number) => void;
}

export interface KnobSetting {
  readonly at: string;
  readonly value: number;
  /** Of its travel. */
  readonly percent: number;
  readonly clock: string;
  /** Its value before. */
  readonly from: number;
}

export interface TargetAnswer {
  readonly at: string;
  readonly id?: string;
  readonly want: Want;
  /** What is reached, in the unit; silence is null. */
  readonly low: number | null;
  readonly high: number | null;
  readonly unit: string;
  readonly lowVolts: number;
  readonly highVolts: number;
  readonly error: number;
  readonly met: boolean;
}

/** What a degree of a knob makes of both ends: cents where a volt doubles, dB of a gain, else the unit. */
export interface Sensitivity {
  readonly knob: string;
  readonly at: string;
  readonly low: number;
  readonly high: number;
  readonly unit: string;
}

/** The 5 and 95% values of both ends. */
export interface Spread {
  readonly at: string;
  readonly low: readonly [number, number];
  readonly high: readonly [number, number];
  readonly unit: string;
}

export interface JumperSetting {
  readonly at: string;
  readonly value: number | string | boolean;
  readonly from: number | string | boolean;
}

export interface Solution {
  readonly settings: readonly KnobSetting[];
  readonly targets: readonly TargetAnswer[];
  readonly sensitivity: readonly Sensitivity[];
  readonly tolerance: readonly Spread[];
  readonly moved: number;
  readonly jumpers: readonly JumperSetting[];
  /** The amounts whose sign it changes, by name. */
  readonly inverts: readonly string[];
  /** The targets that keep less than a fifth of their movement. */
  readonly nearlyEnds: readonly string[];
  readonly why: string;
}

/** A knob at its end, with what it would need. */
export interface Limit {
  readonly at: string;
  readonly needs: number;
  readonly limit: number;
  readonly short: number;
}

export interface Suggestion {
  readonly text: string;
  readonly edits: readonly Edit[];
}

export interface SolveAnswer {
  readonly feasible: boolean;
  /** Up to five, best first. */
  readonly solutions: readonly Solution[];
  readonly nearest: Solution | null;
  readonly limits: readonly Limit[];
  /** Pairs of targets, by id or socket, that cannot be met together. */
  readonly contradictory: readonly (readonly [string, string])[];
  readonly suggestion: Suggestion | null;
  /** The budget ended before all was looked at: this is the best so far. */
  readonly partial?: true;
}

/** The edits that take a solution over. */
export const editsOf = ({ settings, jumpers }: Pick<Solution, 'settings' | 'jumpers'>): Edit[] =>
  [...jumpers, ...settings].map(({ at, value }): Edit => {
    const { id: module, name: param } = partsOf(at);
    return { do: 'set', module, param, value };
  });

/** Something that a player sets by ear or by sums, done in one edit. */
export interface Helper {
  readonly key: 'rest to full' | 'just opens' | 'stays open' | 'nothing clips' | 'locked' | 'accents';
  readonly title: string;
  /** What it does and why, in a line or two. */
  readonly says: string;
  /** Empty where it cannot be done, which is what it then says. */
  readonly edits: readonly Edit[];
}

export interface HelperOptions {
  /** The gain that an amplifier may fall to and still be heard, dB. */
  readonly openDb: number;
  /** Where a locked oscillator begins, share of a cycle. */
  readonly phase: number;
  /** The steps at which a gate shall come, 0 first; null: those above the middle. */
  readonly accents?: readonly number[] | null;
}
