import type { Range } from '../../law/affine';
import type { ParamValues } from '../params';

/** A module that needs a channel: its settings, and what is plugged and can arrive at it. */
export interface Wanted {
  readonly params: ParamValues;
  /** A cable or a normal of the patch carries something there. */
  readonly used: (input: string) => boolean;
  /** What can arrive there, volts. */
  readonly range: (input: string) => Range;
}

/** How another kind does the same: the settings that matter there (all others are free), and where the cables go. */
export interface Served {
  readonly needs: ParamValues;
  readonly inputs: Readonly<Record<string, string>>;
  readonly outputs: Readonly<Record<string, string>>;
  /** A normal that the channel must carry, times which it gives what is wanted. */
  readonly fromNormal?: { readonly to: string; readonly param: string; readonly volts: number };
}

export interface StandIn {
  readonly wanted: string;
  readonly by: string;
  /** 1 changes nothing that can be seen; 5 gives up something, which is said. */
  readonly cost: number;
  readonly says: string;
  /** What differs, where it is not the same to the last digit. */
  readonly differs?: string;
  /** The ways to do it, best first; none where it cannot. */
  readonly as: (wanted: Wanted) => readonly Served[];
}

export const num = (p: ParamValues, name: string): number => Number(p[name]);

/** Where a polarizer clips by default, volts; below it its law is a plain product. */
export const CLIP = 10;
export const unclipped = ([lo, hi]: Range, gain: number): boolean => Math.max(-lo, hi) * Math.abs(gain) <= CLIP;
