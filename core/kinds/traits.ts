import type { Laws } from '../law/builder';
import type { Affine, Range } from '../law/affine';
import type { Sockets } from './sockets';

/** What destinations are read in: all that a target can ask for. */
export const QUANTITIES = [
  'frequency',
  'gain',
  'position',
  'time',
  'rate',
  'note',
  'level',
  'value',
  'width',
  'volts',
  'gainA',
  'gainB',
  'factor',
  'pitch',
] as const;
export type Quantity = (typeof QUANTITIES)[number];

/** What a destination does with its voltage, in its own unit. */
export interface EndSpec<P> {
  /** Where it is read. */
  readonly socket: string;
  /** All sockets whose voltages count. */
  readonly sockets: readonly string[];
  readonly quantity: Quantity;
  /** A further reading of a socket that has one: told beside it, and asked for by its quantity. Left out: its own. */
  readonly further?: boolean;
  /** Whether there is such a reading with these settings. Left out: always. */
  exists?(p: P): boolean;
  unit(p: P): string;
  /** Read even while nothing is plugged in. */
  readonly always: boolean;
  /** One line: what it responds to. */
  readonly says: string;
  /** All that counts, as one voltage. */
  drive(b: Laws, p: P, io: Sockets): Affine;
  /** The figure at a drive voltage; null is silence. */
  value(p: P, drive: number): number | null;
  /** The drive voltages between which it responds; null where it responds to all. */
  window(p: P): Range | null;
  /** Beyond its window it stands still although the voltage moves, and nothing else says so. */
  readonly pins?: boolean;
  /** A gain with its sign, for those that fall silent on the way from one sign to the other. */
  signed?(p: P, drive: number): number;
  /** Which drive gives the lowest and which the highest figure, where `value` does not simply rise. */
  span?(p: P, lo: number, hi: number): Range;
  /** What is below 0 V is told as it is: it opens nothing. */
  oneSided?(p: P): boolean;
  /** Its own knob, 0..1, to which its voltages are added by an amount: the volts for its whole travel. */
  readonly ownKnob?: { readonly param: string; readonly amount: string; fullVolts(p: P): number };
}

/** How a control makes a signal louder and softer. */
export interface GainSpec<P> {
  readonly signals: readonly string[];
  readonly controls: readonly string[];
  /** Constant controls pass, and negative ones invert: with a control about 0 V nothing of the signal itself is left. Left out: no. */
  balances?(p: P): boolean;
  /**
   * What becomes of a volt, for the controls' voltages; a function of its own for each run, called once a sample.
   */
  gain(p: P, sampleRate: number): (controls: readonly number[]) => number;
}

/** How an amplifier's control opens it: an input by an amount, another as it is, and a knob of its own. */
export interface AmplifierSpec<P> {
  /** What it amplifies. */
  readonly signals: readonly string[];
  readonly control: string;
  /** The second control, added as it is. */
  readonly beside: string;
  /** The knobs: how much of the control counts, its own level, and how its response bends. */
  readonly amount: string;
  readonly bias: string;
  readonly response: string;
  settings(p: P): AmplifierSettings;
}

export interface AmplifierSettings {
  readonly amount: number;
  readonly bias: number;
  /** How far its own level goes, volts. */
  readonly biasRange: Range;
  /** Fully open at. */
  readonly unityVolts: number;
  /** It opens above this, volts. */
  readonly deadVolts: number;
  /** A negative control opens it too, and inverts its signal. */
  readonly bothSigns: boolean;
}

/** A knob that stands where a hand leaves it, and how far the hand can move it. */
export interface FaderSpec<P> {
  readonly param: string;
  travel(p: P): Range;
}

/** A knob that offsets all that comes out, and what a volt of it makes. */
export interface LiftSpec<P> {
  readonly param: string;
  perVolt(p: P): number;
}

/** One stage of what a contour or a lag does in its own time. */
export interface StageSpec {
  /** Its time. */
  readonly param: string;
  /** The way its voltage goes. */
  readonly up: boolean;
  /** 0 is a straight line, 1 the curve of a resistor and a capacitor. */
  readonly curve: number;
  /** The time is for this many volts, however few there are; left out: for what there is. */
  readonly forVolts?: number;
}

/** What of an input stands in a product's output beside the product. */
export interface Feedthrough {
  readonly input: string;
  /** The parameter that nulls it. */
  readonly trim: string;
  /** Per volt, trim included. */
  readonly bleed: number;
  /** Volts of product for a volt of this input. */
  readonly product: number;
}

/** A passive part: a pot, with where it stands, or plain wire. */
export type Passive =
  | {
      readonly is: 'pot';
      readonly ohms: number;
      readonly position: number;
      /** Its source is at the wiper, its output at the top. */
      readonly reversed: boolean;
    }
  | { readonly is: 'wire' };

/** A voltage that is cut flat beyond ±`level`, before it is. */
export interface ClipSpec {
  readonly value: Affine;
  readonly level: number;
}
