import { exp2 } from '../law/fastmath';
import type { Laws } from '../law/builder';
import type { Affine } from '../law/affine';
import { gateStateOf, keptGate } from './detect';
import { control, gate, kind } from './kind';
import type { Sockets } from './kind';
import { choice, hertz, number, orNone, volts } from './params';
import type { ParamValues } from './params';
import { otherNames, others, shapeNames, shapes, swingOf, unitWave, waveOf } from './lfoWaves';
import type { Other, Shape, Span } from './lfoWaves';
import { EDGE, Phase } from './phase';
import { briefSeconds } from '../units/show';
import { rateEnd } from './rateEnd';

interface Cycle extends Span {
  readonly shape: Shape;
  readonly width: number;
  readonly phase: number;
}

/** One output of an LFO that waits for a trigger which never comes: where it rests. */
function resting(b: Laws, io: Sockets, p: Cycle, name: string, lows: readonly [number, number]): Affine {
  const other = name === 'out' ? { shape: null, shift: 0 } : others[name as Other];
  const unit = unitWave(other.shape ?? p.shape, p.width, p.phase + other.shift);
  return unit === null ? io.symbol(name, ...lows) : b.constant(p.mid + p.half * unit);
}

/** The phases of single cycles: at rest until a rising reset, one cycle from there, at rest again. */
class OneCycle {
  private runs = 0;
  private ran = false;
  private started: number | null = null;
  private readonly progress: Phase;

  constructor(
    sampleRate: number,
    public phase: number,
    public rests: 'start' | 'end',
  ) {
    this.progress = new Phase(sampleRate, 0);
  }

  /** Just before the cycle closes, where it rests at its end and has run. */
  private resting(rest: number): number {
    return this.rests === 'end' && this.ran ? rest + 1 - 2 * EDGE : rest;
  }

  /** Counts of cycles at sample `k`; each run has a number, and so a draw, of its own. */
  at(k: number, hz: number, edge: boolean): number {
    if (edge) {
      this.runs++;
      this.started = this.progress.reset(k, 0, hz);
    }
    const rest = this.runs + this.phase;
    if (this.started === null) return this.resting(rest);
    const done = this.progress.at(k, hz) - this.started;
    if (done < 1 - EDGE) return rest + done;
    this.started = null;
    this.ran = true;
    return this.resting(rest);
  }
}

const rateAt = (rateHz: number, cv: number): number => Math.min(20000, Math.max(0.0001, rateHz * exp2(cv)));

export const lfo = kind({
  name: 'lfo',
  title: 'LFO',
  does: 'a repeating control voltage',
  aliases: ['low frequency oscillator', 'slow'],
  words: {
    params: {
      shape: 'Waveform',
      rateHz: 'Rate',
      beats: 'Period (beats)',
      mode: 'Mode',
      rest: 'Rests at',
      phase: 'Start phase',
      width: 'Pulse width',
      lowVolts: 'Minimum',
      highVolts: 'Maximum',
    },
    says: { beats: 'one cycle per so many beats; overrides the rate' },
    options: {
      shape: {
        sine: 'Sine',
        triangle: 'Triangle',
        rampUp: 'Rising ramp',
        rampDown: 'Falling ramp',
        pulse: 'Pulse',
        stepped: 'Stepped random',
        smooth: 'Smooth random',
      },
      mode: { free: 'Free-running', once: 'One-shot' },
      rest: { start: 'Start of the cycle', end: 'End of the cycle' },
    },
  },
  formula:
    'φ = frac(phase + ∫ rateHz·2^rate dt), or one cycle in so many beats; out = mid + half·w(φ); quadrature at φ + ¼; sine, triangle, ramp, pulse of the same φ; a rising reset (1 V) sets φ to phase; once: rests there, and runs one cycle at each; rest end: after it at the wave’s value just before φ comes back to phase',
  category: 'source',
  source: {
    sine(p, output) {
      const shaped = p.shape === 'sine' && ['out', 'inverted', 'quadrature'].includes(output);
      return p.mode === 'free' && (output === 'sine' || shaped) ? 'rate' : null;
    },
    hertz: (p) => p.rateHz,
    runs: (p) => p.mode === 'free',
    begins: { input: 'reset', at: 'phase' },
    draws: (p) => p.shape === 'stepped' || p.shape === 'smooth',
    free: (p, connected) => !connected('reset') || p.shape === 'stepped' || p.shape === 'smooth',
    period(p, { steady, bpm }) {
      if (p.shape === 'stepped' || p.shape === 'smooth' || p.mode === 'once') return 'never';
      const cv = steady('rate');
      if (cv === 0 && p.beats !== null) return { over: [60, p.beats], under: [bpm] };
      return cv === null ? 'never' : { over: [1], under: cv === 0 ? [p.rateHz] : [rateAt(p.rateHz, cv)] };
    },
  },
  params: {
    shape: choice(shapes, 'triangle'),
    rateHz: hertz(1, 0.001, 1000),
    beats: orNone(null, 1 / 64, 64, 'beats', {
      taper: 'log',
      says: 'one cycle lasts that many; takes the place of the rate',
    }),
    mode: choice(['free', 'once']),
    rest: { ...choice(['start', 'end']), exists: (p: ParamValues) => p.mode === 'once' },
    phase: number(0, 0, 1),
    width: number(0.5, 0.01, 0.99),
    lowVolts: volts(-5),
    highVolts: volts(5),
  },
  panel: {
    below: [['lowVolts', 'highVolts']],
    tempo: { beats: 'beats', sets: 'rateHz' },
    scaledBy: () => ['lowVolts', 'highVolts'],
  },
  brief: (p) => `${shapeNames[p.shape]}, ${p.mode === 'once' ? 'one-shot, ' : ''}${briefSeconds(1 / p.rateHz)}`,
  scale: { rates: ['rateHz'] },
  inputs: () => [control('rate'), gate('reset')],
  outputs: () => ['out', 'inverted', ...otherNames],
  timing: {
    gates: ['pulse'],
    twoLevels: (p, output) => p.shape === 'pulse' && ['out', 'inverted', 'quadrature'].includes(output),
  },
  memory: (p, connected) => p.mode === 'once' || connected('reset'),
  law(b, p, io): Record<string, Affine> {
    const lows = [p.lowVolts, p.highVolts] as const;
    const still = !['phase', 'width'].some((name) => io.turns?.(name) ?? false);
    const waits = p.mode === 'once' && still && gateStateOf(io, 'reset', 1) === 'low';
    const cycle = { ...p, ...swingOf(p) };
    const wave = (name: string): Affine => (waits ? resting(b, io, cycle, name, lows) : io.symbol(name, ...lows));
    const out = wave('out');
    const rest = otherNames.map((name) => [name, wave(name)] as const);
    return { out, inverted: b.scale(out, -1), ...Object.fromEntries(rest) };
  },
  negated: { inverted: 'out' },
  kernel(p, wiring) {
    const out = wiring.output('out');
    const [rate, reset] = [wiring.input('rate'), wiring.input('reset')];
    const span = swingOf(p);
    const cycles = wiring.scratch();
    const wave = waveOf(p, wiring, span, 0, { cycles, out });
    const beside = otherNames
      .filter((name) => wiring.wanted(name))
      .map((name) => {
        const { shape, shift } = others[name];
        const buffers = { cycles, out: wiring.output(name) };
        return waveOf({ shape: shape ?? p.shape, width: p.width }, wiring, span, shift, buffers);
      });
    const single =
      p.mode === 'once' ? wiring.keep('single', () => new OneCycle(wiring.sampleRate, p.phase, p.rest)) : null;
    if (single) Object.assign(single, { phase: p.phase, rests: p.rest });
    const phase = wiring.keep('phase', () => new Phase(wiring.sampleRate, p.phase));
    const detector = keptGate(wiring, 'reset', 1);
    const run = phase.filling(wiring.kernels, cycles);
    const free = !single && wiring.steady('rate') !== null && wiring.steady('reset') !== null;
    let lastCv = rate[0] as number;
    let hz = rateAt(p.rateHz, lastCv);
    return (from, to, k0) => {
      if (free) run(from, to, k0, hz);
      else {
        for (let i = from; i < to; i++) {
          const cv = rate[i] as number;
          if (cv !== lastCv) {
            lastCv = cv;
            hz = rateAt(p.rateHz, cv);
          }
          const edge = detector.rises(reset[i] as number);
          if (single) cycles[i] = single.at(k0 + i, hz, edge);
          else cycles[i] = edge ? phase.reset(k0 + i, p.phase, hz) : phase.at(k0 + i, hz);
        }
      }
      wave(from, to);
      for (const other of beside) other(from, to);
    };
  },
  ends: [rateEnd('each volt doubles the rate', (p: { readonly rateHz: number }, v) => rateAt(p.rateHz, v))],
});
