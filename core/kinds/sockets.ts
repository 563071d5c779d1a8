import type { Lin, Range } from '../law/lin';

export interface InputSpec {
  readonly name: string;
  /** A signal is what passes through; a control says how; a gate is looked at for edges. */
  readonly role: 'signal' | 'control' | 'gate';
  /** Volts while nothing is plugged in. */
  readonly normal: number;
  /** Whether that normal is a declared one, so that the socket counts as carrying something. */
  readonly normalled: boolean;
  /** A gate's rising threshold, volts. */
  readonly threshold?: number;
  /** The parameter that this input's voltage is multiplied by. */
  readonly amount?: string;
}

export const signal = (name: string, normal?: number, amount?: string): InputSpec =>
  input(name, 'signal', normal, amount);
export const control = (name: string, normal?: number, amount?: string): InputSpec =>
  input(name, 'control', normal, amount);
export const gate = (name: string, threshold = 1): InputSpec => ({ ...input(name, 'gate'), threshold });

function input(name: string, role: InputSpec['role'], normal = 0, amount?: string): InputSpec {
  return { name, role, normal, normalled: normal !== 0, ...(amount !== undefined && { amount }) };
}

/** What the electrical loading of a passive module comes to; all 1 under an ideal load. */
export interface Loading {
  /** Of a passive pot, from its input to its output. */
  readonly potGain: number;
  /** Of a junction, one for each input. */
  readonly weights: readonly number[];
}

/** What a law sees of its module's surroundings. */
export interface Sockets {
  in(name: string): Lin;
  /** A cable is plugged, or a declared normal is carried. */
  connected(name: string): boolean;
  /** A new independent value of this module's own, anywhere in lo..hi. */
  symbol(name: string, lo: number, hi: number): Lin;
  /** Whether a hand turns one of its knobs; where nobody asks, none does. */
  turns?(param: string): boolean;
  /** How far a value can go, tightened. */
  range(x: Lin): Range;
  readonly loading: Loading;
}
