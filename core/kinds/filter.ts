import type { Laws } from '../law/builder';
import { exp2, tangentOfTurn } from '../law/fastmath';
import type { Lin } from '../law/lin';
import { always, control, kind, signal } from './kind';
import type { Sockets, Wiring } from './kind';
import { hertz, number } from './params';
import { showHz } from '../units/show';

export const LOWEST_HZ = 16;
export const HIGHEST_HZ = 20000;

/**
 * One step of a state-variable filter by the topology-preserving transform
 * (Zavalishin, "The Art of VA Filter Design", ch. 4): 12 dB an octave, damping 2R = 2·(1 − 0.995·resonance).
 */
export class StateVariable {
  low = 0;
  band = 0;
  high = 0;
  private s1 = 0;
  private s2 = 0;
  private g = 0;
  private scale = 1;
  readonly damping: number;
  private readonly highest: number;
  private readonly perHertz: number;

  constructor(sampleRate: number, resonance: number) {
    this.highest = Math.min(HIGHEST_HZ, 0.49 * sampleRate);
    this.perHertz = 1 / (2 * sampleRate);
    this.damping = 2 * (1 - 0.995 * resonance);
  }

  tune(hz: number): void {
    this.g = this.coefficient(hz);
    this.scale = 1 / (1 + this.damping * this.g + this.g * this.g);
  }

  /** What a cutoff comes to in the loop. */
  coefficient(hz: number): number {
    return tangentOfTurn(Math.min(this.highest, Math.max(LOWEST_HZ, hz)) * this.perHertz);
  }

  /** Many steps, each with its own coefficient. */
  run(
    input: Float64Array,
    gs: Float64Array,
    lowpass: Float64Array,
    bandpass: Float64Array,
    highpass: Float64Array,
    from: number,
    to: number,
  ): void {
    const { damping } = this;
    let { s1, s2 } = this;
    for (let i = from; i < to; i++) {
      const g = gs[i] as number;
      const high = ((input[i] as number) - (damping + g) * s1 - s2) / (1 + damping * g + g * g);
      const band = g * high + s1;
      const low = g * band + s2;
      s1 = g * high + band;
      s2 = g * band + low;
      lowpass[i] = low;
      bandpass[i] = damping * band;
      highpass[i] = high;
    }
    this.s1 = s1;
    this.s2 = s2;
  }

  step(x: number): void {
    const { g } = this;
    const high = (x - (this.damping + g) * this.s1 - this.s2) * this.scale;
    const band = g * high + this.s1;
    const low = g * band + this.s2;
    this.s1 = g * high + band;
    this.s2 = g * band + low;
    this.low = low;
    this.band = band;
    this.high = high;
  }
}

interface Cutoff {
  readonly cutoffHz: number;
  readonly cutoffAmount: number;
  readonly cutoff2Amount: number;
}

const drive = (b: Laws, p: Cutoff, io: Sockets): Lin =>
  b.sum([io.in('cutoff'), p.cutoffAmount], [io.in('cutoff2'), p.cutoff2Amount], [io.in('pitch'), 1]);

function kernel(p: Cutoff & { readonly resonance: number }, wiring: Wiring) {
  const [input, cutoff, cutoff2, pitch] = ['in', 'cutoff', 'cutoff2', 'pitch'].map((n) => wiring.input(n)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const [lowpass, bandpass, highpass] = [
    wiring.output('lowpass'),
    wiring.output('bandpass'),
    wiring.output('highpass'),
  ];
  const filter = new StateVariable(wiring.sampleRate, p.resonance);
  const gs = wiring.scratch();
  const steady = ['cutoff', 'cutoff2', 'pitch'].every((name) => wiring.steady(name) !== null);
  let [octaves, g] = [0, filter.coefficient(p.cutoffHz)];
  const follow = (from: number, to: number): void => {
    const [a, b] = [p.cutoffAmount, p.cutoff2Amount];
    for (let i = from; i < to; i++) {
      const v = a * (cutoff[i] as number) + b * (cutoff2[i] as number) + (pitch[i] as number);
      if (v !== octaves) {
        octaves = v;
        g = filter.coefficient(p.cutoffHz * exp2(v));
      }
      gs[i] = g;
    }
  };
  if (steady) {
    follow(0, 1);
    gs.fill(g);
  }
  return (from: number, to: number): void => {
    if (!steady) follow(from, to);
    filter.run(input, gs, lowpass, bandpass, highpass, from, to);
  };
}

export const filter = kind({
  name: 'filter',
  title: 'Filter',
  does: 'takes away above or below its cutoff',
  formula:
    'cutoff = cutoffHz·2^(cutoffAmount·cutoff + cutoff2Amount·cutoff2 + pitch), 16 to 20 000 Hz and 0.49 of the sample rate; state-variable, 12 dB an octave, 2R = 2·(1 − 0.995·resonance); bandpass times 2R',
  room: 'between',
  audio: true,
  params: {
    cutoffHz: hertz(1000, LOWEST_HZ, HIGHEST_HZ),
    cutoffAmount: number(1, -1, 1),
    cutoff2Amount: number(1, -1, 1),
    resonance: number(0.1, 0, 1),
  },
  brief: (p) => `${showHz(p.cutoffHz)} at 0 V`,
  inputs: () => [signal('in'), control('cutoff'), control('cutoff2'), control('pitch')],
  outputs: () => ['lowpass', 'bandpass', 'highpass'],
  memory: always,
  law(_b, _p, io): Record<string, Lin> {
    const rails = (name: string): Lin => io.symbol(name, -Infinity, Infinity);
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
    },
  ],
});
