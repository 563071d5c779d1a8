import type { Laws } from '../law/builder';
import type { Affine, Range } from '../law/affine';

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

/** What the electrical loading of a passive module comes to. */
export interface Loading {
  /** What loads a passive pot's output, ohms; null for an ideal load. */
  readonly potLoad: number | null;
  /** Of a junction, one for each input. */
  readonly weights: readonly number[];
  /** How far they go while hands turn passive pots; left out where none does. */
  readonly spread?: { readonly potLoads: Range | null; readonly weights: readonly Range[] };
}

/** What a law sees of its module's surroundings. */
export interface Sockets {
  in(name: string): Affine;
  /** A cable is plugged, or a declared normal is carried. */
  connected(name: string): boolean;
  /** A new independent value of this module's own, anywhere in lo..hi. */
  symbol(name: string, lo: number, hi: number): Affine;
  /** A knob that a hand turns, as a voltage over its way; null where none does. Only of those that a kind declares. */
  hand?(param: string): Affine | null;
  /** Whether a hand turns one of its knobs; without this, none does. */
  turns?(param: string): boolean;
  /** How far a value can go, tightened. */
  range(x: Affine): Range;
  readonly loading: Loading;
}

/** A knob as a voltage: over all of its way where a hand turns it, otherwise as it is set. */
export const knob = <K extends string>(b: Laws, p: Readonly<Record<K, number>>, io: Sockets, name: K): Affine =>
  io.hand?.(name) ?? b.constant(p[name]);

/** What people call sockets; a kind whose socket of that name is something else says so itself. */
const LABELS: Readonly<Record<string, string>> = {
  in: 'In',
  out: 'Out',
  inverted: 'Inverted out',
  quadrature: '90° out',
  cv: 'CV',
  cutoff: 'Cutoff CV',
  pitch: '1 V/oct',
  fm: 'FM',
  pwm: 'PWM',
  sync: 'Sync',
  riseCv: 'Rise CV',
  fallCv: 'Fall CV',
  bothCv: 'Both CV',
  level: 'Level CV',
  time: 'Time CV',
  feedback: 'Feedback CV',
  rate: 'Rate CV',
  bias: 'Bias CV',
  end: 'End of cycle',
  rising: 'Attack gate',
  chain: 'Mix in',
  threshold: 'Threshold CV',
  clock: 'Clock',
  reset: 'Reset',
  trigger: 'Trigger',
  gate: 'Gate',
  lowpass: 'Low-pass',
  bandpass: 'Band-pass',
  highpass: 'High-pass',
  sine: 'Sine',
  triangle: 'Triangle',
  ramp: 'Ramp',
  saw: 'Saw',
  pulse: 'Pulse',
  left: 'Left',
  right: 'Right',
  a: 'A',
  b: 'B',
};

/** `in3` is "In 3", `cutoff2` is "Cutoff CV 2". */
export function usualSocketLabel(name: string): string {
  const [, stem = name, number = ''] = /^([A-Za-z]+?)(\d*)$/.exec(name) ?? [];
  const label = LABELS[stem] ?? stem.charAt(0).toUpperCase() + stem.slice(1);
  return number === '' ? label : `${label} ${number}`;
}
