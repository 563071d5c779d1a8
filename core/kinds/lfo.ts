import type { Lin } from '../law/lin';
import { Gate } from './detect';
import { control, gate, kind } from './kind';
import { choice, hertz, number, volts } from './params';
import { EDGE, Phase, triangle, withinCycle } from './phase';
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

/** The unit wave at a count of cycles; the draws of `stepped` and `smooth` are numbered by their cycle. */
function wave(shape: Shape, cycles: number, width: number, seed: number): number {
  const phase = withinCycle(cycles);
  switch (shape) {
    case 'sine':
      return Math.sin(2 * Math.PI * phase);
    case 'triangle':
      return triangle(phase);
    case 'rampUp':
      return 2 * phase - 1;
    case 'rampDown':
      return 1 - 2 * phase;
    case 'pulse':
      return phase < width - EDGE ? 1 : -1;
    case 'stepped':
      return draw(seed, Math.floor(cycles + EDGE));
    case 'smooth': {
      const n = Math.floor(cycles + EDGE);
      const [from, to] = [draw(seed, n), draw(seed, n + 1)];
      return from + ((to - from) * (1 - Math.cos(Math.PI * phase))) / 2;
    }
  }
}

const rateAt = (rateHz: number, cv: number): number => Math.min(20000, Math.max(0.0001, rateHz * 2 ** cv));

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
  law(b, p, io): Record<string, Lin> {
    const out = io.symbol('out', p.lowVolts, p.highVolts);
    return { out, inverted: b.scale(out, -1), quadrature: io.symbol('quadrature', p.lowVolts, p.highVolts) };
  },
  period(p, steady) {
    if (p.shape === 'stepped' || p.shape === 'smooth') return 'never';
    const cv = steady('rate');
    return cv === null ? 'never' : { over: [1], under: cv === 0 ? [p.rateHz] : [rateAt(p.rateHz, cv)] };
  },
  kernel(p, wiring) {
    const [out, inverted, quadrature] = [wiring.output('out'), wiring.output('inverted'), wiring.output('quadrature')];
    const [rate, reset] = [wiring.input('rate'), wiring.input('reset')];
    const mid = (p.lowVolts + p.highVolts) / 2;
    const half = (p.highVolts - p.lowVolts) / 2;
    const phase = new Phase(wiring.sampleRate, p.phase);
    const detector = new Gate(1);
    let lastCv = 0;
    let hz = rateAt(p.rateHz, 0);
    return (from, to, k0) => {
      for (let i = from; i < to; i++) {
        const cv = rate[i] as number;
        if (cv !== lastCv) {
          lastCv = cv;
          hz = rateAt(p.rateHz, cv);
        }
        const edge = detector.rises(reset[i] as number);
        const cycles = edge ? phase.reset(k0 + i, p.phase, hz) : phase.at(k0 + i, hz);
        const v = mid + half * wave(p.shape, cycles, p.width, wiring.seed);
        out[i] = v;
        inverted[i] = -v;
        quadrature[i] = mid + half * wave(p.shape, cycles + 0.25, p.width, wiring.seed);
      }
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
