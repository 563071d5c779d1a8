import type { Laws } from '../law/builder';
import { isZero } from '../law/lin';
import type { Lin } from '../law/lin';
import { always, control, kind, signal } from './kind';
import type { Kernel, Sockets, Wiring } from './kind';
import { hertz, number } from './params';
import { showHz } from '../units/show';

export const LOWEST_HZ = 16;
export const HIGHEST_HZ = 20000;

/** Damping 2R at a resonance of 0..1. */
const dampingAt = (resonance: number): number => 2 * (1 - 0.995 * resonance);

/** Three buffers whose weighted sum, in octaves, moves a cutoff from `hertz` within its limits. */
export interface Tuning {
  readonly a: Float64Array;
  readonly ka: number;
  readonly b: Float64Array;
  readonly kb: number;
  readonly c: Float64Array;
  readonly hertz: number;
  readonly lowest: number;
  /** Whether the buffers never change. */
  readonly steady: boolean;
}

/** A state-variable filter whose cutoff follows `tuning`; answers its kernel and where its lowpass comes out. */
export function stateVariable(
  wiring: Wiring,
  { a, ka, b, kb, c, hertz: base, lowest, steady }: Tuning,
  resonance: number,
  out: { readonly lowpass: Float64Array; readonly bandpass: Float64Array; readonly highpass: Float64Array },
): Kernel {
  const { kernels, sampleRate } = wiring;
  const [pa, pb, pc] = [a.byteOffset, b.byteOffset, c.byteOffset];
  const input = wiring.input('in').byteOffset;
  const gs = wiring.scratch().byteOffset;
  const state = wiring.room('state', 2).byteOffset;
  const [low, band, high] = [out.lowpass.byteOffset, out.bandpass.byteOffset, out.highpass.byteOffset];
  const damping = dampingAt(resonance);
  const highest = Math.min(HIGHEST_HZ, 0.49 * sampleRate);
  const perHertz = 1 / (2 * sampleRate);
  const tune = (at: number, n: number): void =>
    kernels.cutoffs(pa + at, ka, pb + at, kb, pc + at, base, lowest, highest, perHertz, gs + at, n);
  if (steady) tune(0, a.length);
  return (from, to) => {
    const [at, n] = [8 * from, to - from];
    if (!steady) tune(at, n);
    kernels.stateVariable(input + at, gs + at, damping, state, low + at, band + at, high + at, n);
  };
}

interface Cutoff {
  readonly cutoffHz: number;
  readonly cutoffAmount: number;
  readonly cutoff2Amount: number;
}

const drive = (b: Laws, p: Cutoff, io: Sockets): Lin =>
  b.sum([io.in('cutoff'), p.cutoffAmount], [io.in('cutoff2'), p.cutoff2Amount], [io.in('pitch'), 1]);

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
  title: 'Filter',
  does: 'takes away above or below its cutoff',
  formula:
    'cutoff = cutoffHz·2^(cutoffAmount·cutoff + cutoff2Amount·cutoff2 + pitch), 16 to 20 000 Hz and 0.49 of the sample rate; state-variable, 12 dB an octave, 2R = 2·(1 − 0.995·resonance); bandpass times 2R',
  room: 'between',
  howls: ['resonance'],
  loudest(p, input, output) {
    if (input !== 'in') return null;
    // The resonance, or the pass band.
    return Math.max(1, output === 'bandpass' ? 1 : 1 / (2 * (1 - 0.995 * p.resonance)));
  },
  offered: 1,
  audio: true,
  params: {
    cutoffHz: hertz(1000, LOWEST_HZ, HIGHEST_HZ),
    cutoffAmount: number(1, -1, 1),
    cutoff2Amount: number(1, -1, 1),
    resonance: number(0.1, 0, 1),
  },
  brief: (p) => `${showHz(p.cutoffHz)} at 0 V`,
  inputs: () => [
    signal('in'),
    control('cutoff', 0, 'cutoffAmount'),
    control('cutoff2', 0, 'cutoff2Amount'),
    control('pitch'),
  ],
  outputs: () => ['lowpass', 'bandpass', 'highpass'],
  memory: always,
  law(b, _p, io): Record<string, Lin> {
    const silent = isZero(io.in('in'));
    const rails = (name: string): Lin => (silent ? b.constant(0) : io.symbol(name, -Infinity, Infinity));
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
      says: 'one volt an octave at full amount',
      drive,
      value: (p, v) => Math.min(HIGHEST_HZ, Math.max(LOWEST_HZ, p.cutoffHz * 2 ** v)),
      window: (p) => [Math.log2(LOWEST_HZ / p.cutoffHz), Math.log2(HIGHEST_HZ / p.cutoffHz)],
      pins: true,
    },
  ],
});
