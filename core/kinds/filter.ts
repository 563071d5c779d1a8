import type { Laws } from '../law/builder';
import { isZero } from '../law/affine';
import type { Affine, Range } from '../law/affine';
import { always, control, kind, signal } from './kind';
import type { CutoffSum, FilterOutputs } from '../native/kernels';
import type { Kernel, Sockets, Wiring } from './kind';
import { hertz, number } from './params';
import { showHz } from '../units/show';

export const LOWEST_HZ = 16;
export const HIGHEST_HZ = 20000;

/** Damping 2R of small voltages; below 0 it sings. */
const dampingAt = (resonance: number): number => 2 * (1 - 0.995 * resonance);

const sings = (p: { readonly resonance: number }): boolean => dampingAt(p.resonance) < 0;

/** What a filter that sings begins with, volts. */
const START_VOLTS = 0.001;
/** The least damping that a small signal is told by. */
const LEAST_DAMPING = 0.01;

/** What moves a cutoff, within what a filter reaches. */
export interface Tuning extends Omit<CutoffSum, 'highest'> {
  /** Whether the buffers never change. */
  readonly steady: boolean;
}

/** A state-variable filter whose cutoff follows `tuning`. */
export function stateVariable(wiring: Wiring, tuning: Tuning, resonance: number, out: FilterOutputs): Kernel {
  const { kernels, sampleRate } = wiring;
  const coefficients = wiring.scratch();
  const highest = Math.min(HIGHEST_HZ, 0.49 * sampleRate);
  const tune = kernels.cutoffs({ ...tuning, highest }, sampleRate, coefficients);
  const state = wiring.numbers('state', 4);
  // At rest it would stay there for ever.
  if (sings({ resonance }) && state.every((v) => v === 0)) state.set([START_VOLTS, 0, START_VOLTS, 0]);
  const filter = kernels.stateVariable(wiring.input('in'), coefficients, dampingAt(resonance), state, out);
  if (!tuning.steady) {
    return (from, to) => {
      tune(from, to);
      filter(from, to);
    };
  }
  tune(0, tuning.a.length);
  return filter;
}

interface Cutoff {
  readonly cutoffHz: number;
  readonly cutoffAmount: number;
  readonly cutoff2Amount: number;
}

const drive = (b: Laws, p: Cutoff, io: Sockets): Affine =>
  b.sum([io.in('cutoff'), p.cutoffAmount], [io.in('cutoff2'), p.cutoff2Amount], [io.in('pitch'), 1]);

const hertzAt = (p: Cutoff, volts: number): number =>
  Math.min(HIGHEST_HZ, Math.max(LOWEST_HZ, p.cutoffHz * 2 ** volts));

const windowOf = (p: Cutoff): Range => [Math.log2(LOWEST_HZ / p.cutoffHz), Math.log2(HIGHEST_HZ / p.cutoffHz)];

function kernel(p: Cutoff & { readonly resonance: number }, wiring: Wiring): Kernel {
  const tuning = {
    a: wiring.input('cutoff'),
    ka: p.cutoffAmount,
    b: wiring.input('cutoff2'),
    kb: p.cutoff2Amount,
    c: wiring.input('pitch'),
    hertz: p.cutoffHz,
    lowest: LOWEST_HZ,
    steady: ['cutoff', 'cutoff2', 'pitch'].every((name) => wiring.steady(name) !== null),
  };
  const [lowpass, bandpass, highpass] = [
    wiring.output('lowpass'),
    wiring.output('bandpass'),
    wiring.output('highpass'),
  ];
  return stateVariable(wiring, tuning, p.resonance, { lowpass, bandpass, highpass });
}

export const filter = kind({
  name: 'filter',
  title: 'Filter (VCF)',
  does: 'low-pass, band-pass and high-pass, 12 dB/oct',
  aliases: ['VCF'],
  words: {
    params: {
      cutoffHz: 'Cutoff',
      cutoffAmount: 'Cutoff CV amount',
      cutoff2Amount: 'Cutoff CV 2 amount',
      resonance: 'Resonance',
    },
  },
  formula:
    'cutoff = cutoffHz·2^(cutoffAmount·cutoff + cutoff2Amount·cutoff2 + pitch), 16 to 20 000 Hz and 0.49 of the sample rate; state-variable, 12 dB an octave, 2R = 2·(1 − 0.995·resonance), bandpass times 2R; where that is below 0 it sings: 2R = 2·(1 − 0.995·resonance) + 0.0465·(v1² + v2²), v1 and v2 the band-pass and low-pass voltages of the sample before, and bandpass is v1',
  category: 'between',
  panel: {
    howls: ['resonance'],
  },
  sound: {
    loudest(p, input, output) {
      if (input !== 'in') return null;
      // The resonance, or the pass band.
      return Math.max(1, output === 'bandpass' ? 1 : 1 / Math.max(LEAST_DAMPING, dampingAt(p.resonance)));
    },
    audioRate: true,
  },
  source: {
    free: sings,
    runs: sings,
    hertz: (p) => (sings(p) ? p.cutoffHz : 0),
    period: (p) => (sings(p) ? 'never' : 'none'),
  },
  offered: 1,
  params: {
    cutoffHz: hertz(1000, LOWEST_HZ, HIGHEST_HZ),
    cutoffAmount: number(1, -1, 1),
    cutoff2Amount: number(1, -1, 1),
    resonance: number(0.1, 0, 1.2),
  },
  brief: (p) => `${showHz(p.cutoffHz)} at 0 V${sings(p) ? ', sings' : ''}`,
  inputs: () => [
    signal('in'),
    control('cutoff', 0, 'cutoffAmount'),
    control('cutoff2', 0, 'cutoff2Amount'),
    control('pitch'),
  ],
  outputs: () => ['lowpass', 'bandpass', 'highpass'],
  memory: always,
  law(b, p, io): Record<string, Affine> {
    const silent = isZero(io.in('in')) && !sings(p);
    const rails = (name: string): Affine => (silent ? b.constant(0) : io.symbol(name, -Infinity, Infinity));
    return { lowpass: rails('lowpass'), bandpass: rails('bandpass'), highpass: rails('highpass') };
  },
  kernel,
  ends: [
    {
      socket: 'cutoff',
      sockets: ['cutoff', 'cutoff2', 'pitch'],
      quantity: 'frequency',
      unit: () => 'Hz',
      always: true,
      says: '1 V/oct at full CV amount',
      drive,
      value: hertzAt,
      window: windowOf,
      pins: true,
    },
    {
      socket: 'cutoff',
      sockets: ['cutoff', 'cutoff2', 'pitch'],
      quantity: 'pitch',
      further: true,
      exists: sings,
      unit: () => 'Hz',
      always: true,
      says: 'the pitch that it sings at',
      drive,
      value: hertzAt,
      window: windowOf,
    },
  ],
});
