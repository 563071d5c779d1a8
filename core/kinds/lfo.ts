import { exp2, sineOfTurn } from '../law/fastmath';
import type { Lin } from '../law/lin';
import { Gate } from './detect';
import { addressOf, control, gate, kind } from './kind';
import type { Wiring } from './kind';
import { choice, hertz, number, volts } from './params';
import { EDGE, Phase, withinCycle } from './phase';
import { draw } from './random';
import { briefSeconds } from '../units/show';

const shapes = ['sine', 'triangle', 'rampUp', 'rampDown', 'pulse', 'stepped', 'smooth'] as const;
type Shape = (typeof shapes)[number];

const shapeNames: Readonly<Record<Shape, string>> = {
  sine: 'sine',
  triangle: 'triangle',
  rampUp: 'rising ramp',
  rampDown: 'falling ramp',
  pulse: 'pulse',
  stepped: 'stepped',
  smooth: 'smooth random',
};

/** Fills `out` with `mid + half·w(φ)` at counts of cycles; draws are numbered by their cycle. */
type Wave = (cycles: Float64Array, from: number, to: number, out: Float64Array) => void;

interface Span {
  readonly mid: number;
  readonly half: number;
}

function drawnWave(smooth: boolean, seed: number, { mid, half }: Span, shift: number): Wave {
  let n = NaN;
  let [now, next] = [0, 0];
  return (cycles, from, to, out) => {
    for (let i = from; i < to; i++) {
      const at = (cycles[i] as number) + shift;
      const whole = Math.floor(at + EDGE);
      if (whole !== n) {
        n = whole;
        now = draw(seed, n);
        next = draw(seed, n + 1);
      }
      const share = smooth ? (1 - sineOfTurn(0.25 + withinCycle(at) / 2)) / 2 : 0;
      out[i] = mid + half * (now + (next - now) * share);
    }
  };
}

function waveOf(p: { readonly shape: Shape; readonly width: number }, wiring: Wiring, span: Span, shift: number): Wave {
  const { kernels } = wiring;
  const { mid, half } = span;
  switch (p.shape) {
    case 'sine':
    case 'triangle': {
      const wave = kernels[p.shape];
      return (cycles, from, to, out) =>
        wave(addressOf(cycles, from), shift, mid, half, addressOf(out, from), to - from);
    }
    case 'rampUp':
    case 'rampDown': {
      const way = p.shape === 'rampUp' ? half : -half;
      return (cycles, from, to, out) =>
        kernels.ramp(addressOf(cycles, from), shift, mid, way, addressOf(out, from), to - from);
    }
    case 'pulse':
      return (cycles, from, to, out) =>
        kernels.square(addressOf(cycles, from), shift, p.width, mid, half, addressOf(out, from), to - from);
    case 'stepped':
    case 'smooth':
      return drawnWave(p.shape === 'smooth', wiring.seed, span, shift);
  }
}

const rateAt = (rateHz: number, cv: number): number => Math.min(20000, Math.max(0.0001, rateHz * exp2(cv)));

export const lfo = kind({
  name: 'lfo',
  title: 'Slow oscillator',
  does: 'moves by itself, over and over',
  formula:
    'φ = frac(phase + ∫ rateHz·2^rate dt); out = mid + half·w(φ); quadrature at φ + ¼; a rising reset (1 V) sets φ to phase',
  room: 'source',
  audio: false,
  params: {
    shape: choice(shapes, 'triangle'),
    rateHz: hertz(1, 0.001, 1000),
    phase: number(0, 0, 1),
    width: number(0.5, 0.01, 0.99),
    lowVolts: volts(-5),
    highVolts: volts(5),
  },
  below: [['lowVolts', 'highVolts']],
  brief: (p) => `${shapeNames[p.shape]}, ${briefSeconds(1 / p.rateHz)}`,
  inputs: () => [control('rate'), gate('reset')],
  outputs: () => ['out', 'inverted', 'quadrature'],
  memory: (_, connected) => connected('reset'),
  free: (p, connected) => !connected('reset') || p.shape === 'stepped' || p.shape === 'smooth',
  law(b, p, io): Record<string, Lin> {
    const out = io.symbol('out', p.lowVolts, p.highVolts);
    return { out, inverted: b.scale(out, -1), quadrature: io.symbol('quadrature', p.lowVolts, p.highVolts) };
  },
  period(p, steady) {
    if (p.shape === 'stepped' || p.shape === 'smooth') return 'never';
    const cv = steady('rate');
    return cv === null ? 'never' : { over: [1], under: cv === 0 ? [p.rateHz] : [rateAt(p.rateHz, cv)] };
  },
  negated: { inverted: 'out' },
  kernel(p, wiring) {
    const [out, quadrature] = [wiring.output('out'), wiring.output('quadrature')];
    const [rate, reset] = [wiring.input('rate'), wiring.input('reset')];
    const span = { mid: (p.lowVolts + p.highVolts) / 2, half: (p.highVolts - p.lowVolts) / 2 };
    const wave = waveOf(p, wiring, span, 0);
    const second = wiring.wanted('quadrature') ? waveOf(p, wiring, span, 0.25) : null;
    const phase = new Phase(wiring, p.phase);
    const detector = new Gate(1);
    const cycles = wiring.scratch();
    const free = wiring.steady('rate') !== null && wiring.steady('reset') !== null;
    let lastCv = rate[0] as number;
    let hz = rateAt(p.rateHz, lastCv);
    return (from, to, k0) => {
      if (free) phase.fill(cycles, from, to, k0, hz);
      else {
        for (let i = from; i < to; i++) {
          const cv = rate[i] as number;
          if (cv !== lastCv) {
            lastCv = cv;
            hz = rateAt(p.rateHz, cv);
          }
          const edge = detector.rises(reset[i] as number);
          cycles[i] = edge ? phase.reset(k0 + i, p.phase, hz) : phase.at(k0 + i, hz);
        }
      }
      wave(cycles, from, to, out);
      second?.(cycles, from, to, quadrature);
    };
  },
  ends: [
    {
      socket: 'rate',
      sockets: ['rate'],
      quantity: 'rate',
      unit: () => 'Hz',
      always: false,
      says: 'one volt doubles the rate',
      drive: (_b, _p, io) => io.in('rate'),
      value: (p, v) => rateAt(p.rateHz, v),
      window: (p) => [Math.log2(0.0001 / p.rateHz), Math.log2(20000 / p.rateHz)],
    },
  ],
});
