import type { Laws } from '../law/builder';
import { exp2 } from '../law/fastmath';
import { doubling } from '../law/affine';
import type { Affine } from '../law/affine';
import { keptGate } from './detect';
import { always, control, gate, kind } from './kind';
import type { EndSpec, Kernel, Sockets, Wiring } from './kind';
import { choice, hertz, number, volts, setUp } from './params';
import { Phase, withinCycle } from './phase';
import { showHz } from '../units/show';

const TOP_HZ = 20000;
const NARROWEST = 0.01;
const WIDEST = 0.99;

interface Tuning {
  readonly baseHz: number;
  readonly fmAmount: number;
  readonly fmLaw: 'exponential' | 'linear';
  /** By how much a real one’s octave is wide, cents; no document says it. */
  readonly centsPerOctave?: number;
}

/** Octaves that a real one gives for a volt. */
const octavesPerVolt = ({ centsPerOctave = 0 }: Tuning): number => 1 + centsPerOctave / 1200;

function frequencyAt(p: Tuning, pitch: number, fm: number): number {
  const hz =
    p.fmLaw === 'exponential'
      ? p.baseHz * exp2((pitch + p.fmAmount * fm) * octavesPerVolt(p))
      : p.baseHz * exp2(pitch * octavesPerVolt(p)) * (1 + (p.fmAmount * fm) / LINEAR_VOLTS);
  return Math.min(TOP_HZ, Math.max(0, hz));
}

function drive(b: Laws, p: Tuning, io: Sockets): Affine {
  const [pitch, fm] = [io.in('pitch'), io.in('fm')];
  if (p.fmLaw === 'exponential' || p.fmAmount === 0) return b.sum([pitch, 1], [fm, p.fmAmount]);
  const factor = b.mul(b.curve(b.scale(pitch, octavesPerVolt(p)), doubling), b.scale(fm, p.fmAmount / LINEAR_VOLTS, 1));
  return b.scale(factor, LINEAR_VOLTS, -LINEAR_VOLTS);
}

/** The linear modulation that doubles the frequency, volts. */
const LINEAR_VOLTS = 5;

/**
 * With linear modulation the drive is the voltage that would give the frequency at `fm` alone, at full amount and with
 * the pitch at 0 V; else it is octaves.
 */
const isLinear = (p: Tuning): boolean => p.fmLaw === 'linear' && p.fmAmount !== 0;

/** Fills phases, and their steps, of a frequency that its inputs move, and that nothing resets. */
function sweeping(
  p: Tuning,
  wiring: Wiring,
  phase: Phase,
  { at, step }: { readonly at: Float64Array; readonly step: Float64Array },
): Kernel {
  const { kernels, sampleRate } = wiring;
  const [pitch, fm, hertz] = [wiring.input('pitch'), wiring.input('fm'), wiring.scratch()];
  const octaves = octavesPerVolt(p);
  const exponential = p.fmLaw === 'exponential';
  const passes = [
    kernels.sumOfTwo(pitch, octaves, fm, exponential ? octaves * p.fmAmount : 0, 0, hertz),
    kernels.powers(hertz, hertz),
    ...(exponential
      ? []
      : [kernels.scaled(fm, p.fmAmount / LINEAR_VOLTS, 1, step), kernels.products(hertz, step, hertz)]),
    kernels.scaled(hertz, p.baseHz, 0, hertz),
    kernels.clamped(hertz, 0, TOP_HZ, hertz),
    kernels.scaled(hertz, 1 / sampleRate, 0, step),
    kernels.clamped(step, 0, 0.5, step),
  ];
  const sweep = phase.sweeping(kernels, hertz, wiring.numbers('swept', 3), at);
  return (from, to, k0) => {
    for (const pass of passes) pass(from, to);
    sweep(from, to, k0);
  };
}

function frequencyEnd(socket: string, always: boolean): EndSpec<Tuning> {
  return {
    socket,
    sockets: ['pitch', 'fm'],
    quantity: 'frequency',
    unit: () => 'Hz',
    always,
    says: '1 V/oct',
    drive,
    value(p, v) {
      return isLinear(p) ? Math.min(TOP_HZ, Math.max(0, p.baseHz * (1 + v / LINEAR_VOLTS))) : frequencyAt(p, v, 0);
    },
    window: (p) =>
      isLinear(p)
        ? [-LINEAR_VOLTS, LINEAR_VOLTS * (TOP_HZ / p.baseHz - 1)]
        : [-24, Math.log2(TOP_HZ / p.baseHz) / octavesPerVolt(p)],
    pins: true,
  };
}

export const oscillator = kind({
  name: 'oscillator',
  title: 'Oscillator (VCO)',
  does: 'an audio oscillator at 1 V/oct',
  aliases: ['VCO', 'tone'],
  words: {
    params: {
      baseHz: 'Frequency (at 0 V)',
      fmAmount: 'FM depth',
      fmLaw: 'FM type',
      width: 'Pulse width',
      pwmAmount: 'PWM depth',
      lowVolts: 'Minimum',
      highVolts: 'Maximum',
    },
    options: { fmLaw: { exponential: 'Exponential', linear: 'Linear' } },
  },
  formula:
    'f = baseHz·2^(pitch + fmAmount·fm), or baseHz·2^pitch·(1 + fmAmount·fm/5), 0 to 20 000 Hz; saw and pulse band-limited; a rising sync (1 V) sets the phase to 0',
  category: 'source',
  source: {
    sine: (_p, output) => (output === 'sine' ? { end: 'pitch' } : null),
    hertz: (p) => p.baseHz,
    runs: always,
    free: (_p, connected) => !connected('sync'),
    period(p, { steady }) {
      const [pitch, fm, pwm] = [steady('pitch'), steady('fm'), steady('pwm')];
      if (pitch === null || (fm === null && p.fmAmount !== 0) || (pwm === null && p.pwmAmount !== 0)) return 'never';
      const hz = frequencyAt(p, pitch, fm ?? 0);
      return hz > 0 ? { over: [1], under: [hz] } : 'none';
    },
  },
  offered: 3,
  sound: {
    audioRate: true,
    audible: true,
  },
  params: {
    baseHz: hertz(261.626, 1, 20000),
    fmAmount: number(0, -1, 1),
    fmLaw: setUp(choice(['exponential', 'linear'])),
    width: number(0.5, NARROWEST, WIDEST),
    pwmAmount: number(0, -1, 1),
    lowVolts: volts(-5),
    highVolts: volts(5),
  },
  panel: {
    below: [['lowVolts', 'highVolts']],
    scaledBy: () => ['lowVolts', 'highVolts'],
  },
  brief: (p) => `${showHz(p.baseHz)} at 0 V`,
  scale: { octaves: true },
  inputs: () => [control('pitch'), control('fm', 0, 'fmAmount'), control('pwm', 0, 'pwmAmount'), gate('sync')],
  outputs: () => ['sine', 'triangle', 'saw', 'pulse'],
  memory: (_p, connected) => connected('sync'),
  law(_b, p, io): Record<string, Affine> {
    const wave = (name: string): Affine => io.symbol(name, p.lowVolts, p.highVolts);
    return { sine: wave('sine'), triangle: wave('triangle'), saw: wave('saw'), pulse: wave('pulse') };
  },
  kernel(p, wiring) {
    const { kernels } = wiring;
    const [mid, half] = [(p.lowVolts + p.highVolts) / 2, (p.highVolts - p.lowVolts) / 2];
    const [pitchIn, fmIn] = [wiring.input('pitch'), wiring.input('fm')];
    const [pwmIn, sync] = [wiring.input('pwm'), wiring.input('sync')];
    const phase = wiring.keep('phase', () => new Phase(wiring.sampleRate, 0));
    const detector = keptGate(wiring, 'sync', 1);
    // Phase 0..1 and phase step of each sample, then one pass for each wave that is wanted.
    const [at, step] = [wiring.scratch(), wiring.scratch()];
    const out = (name: string): Float64Array | null => (wiring.wanted(name) ? wiring.output(name) : null);
    const [sine, tri, saw, pulse] = [out('sine'), out('triangle'), out('saw'), out('pulse')];
    const swing = { mid, half };
    const width = { cv: pwmIn, amount: p.pwmAmount, atZero: p.width };
    const waves = [
      sine && kernels.wave('sine', at, swing, sine),
      tri && kernels.wave('triangle', at, swing, tri),
      saw && kernels.saw(at, step, swing, saw),
      pulse && kernels.pulse(at, step, width, swing, pulse),
    ].filter((wave) => wave !== null);
    const run = phase.filling(kernels, at);
    const wrap = kernels.withinCycles(at, at);
    let [pitch, fm] = [0, 0];
    let hz = frequencyAt(p, 0, 0);
    let blep = Math.min(0.5, hz / wiring.sampleRate);
    const free = ['pitch', 'fm', 'sync'].every((name) => wiring.steady(name) !== null);
    if (free) {
      hz = frequencyAt(p, pitchIn[0] as number, fmIn[0] as number);
      blep = Math.min(0.5, hz / wiring.sampleRate);
      step.fill(blep);
    }
    const swept = !free && wiring.steady('sync') !== null;
    const sweep = swept ? sweeping(p, wiring, phase, { at, step }) : null;
    const follow = (from: number, to: number, k0: number): void => {
      for (let i = from; i < to; i++) {
        if (pitchIn[i] !== pitch || fmIn[i] !== fm) {
          pitch = pitchIn[i] as number;
          fm = fmIn[i] as number;
          hz = frequencyAt(p, pitch, fm);
          blep = Math.min(0.5, hz / wiring.sampleRate);
        }
        const edge = detector.rises(sync[i] as number);
        at[i] = withinCycle(edge ? phase.reset(k0 + i, 0, hz) : phase.at(k0 + i, hz));
        step[i] = blep;
      }
    };
    return (from, to, k0) => {
      if (free) {
        run(from, to, k0, hz);
        wrap(from, to);
      } else if (sweep) sweep(from, to, k0);
      else follow(from, to, k0);
      for (const wave of waves) wave(from, to);
    };
  },
  ends: [
    frequencyEnd('pitch', true),
    frequencyEnd('fm', false),
    {
      socket: 'pwm',
      sockets: ['pwm'],
      quantity: 'width',
      unit: () => '%',
      always: false,
      says: '10 V spans the full width at full PWM depth',
      drive: (b, p, io) => b.scale(io.in('pwm'), p.pwmAmount, 10 * p.width),
      value: (_p, v) => 100 * Math.min(WIDEST, Math.max(NARROWEST, v / 10)),
      window: () => [10 * NARROWEST, 10 * WIDEST],
      pins: true,
    },
  ],
});
