import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { predict } from '../answers/predict';
import { simulate } from '../simulate/simulate';

const run = (patch: ReturnType<typeof patchOf>, ...traces: string[]): Float64Array[] => {
  const found = simulate(patch, { traces }).traces;
  return traces.map((socket) => found.get(socket)!);
};
const reading = (patch: ReturnType<typeof patchOf>, at: string) =>
  predict(patch, { cures: false }).readings.find((r) => r.at === at)!;
const RATE = 1000;

describe('a slow oscillator’s other waves', () => {
  it('are of the same phase', () => {
    const params = { shape: 'rampDown', rateHz: 2, phase: 0.1, width: 0.3, lowVolts: -2, highVolts: 4 };
    const patch = patchOf({ l: ['lfo', params] }, [], { duration: 1, sampleRate: RATE });
    const [sine, triangle, ramp, pulse] = run(patch, 'l.sine', 'l.triangle', 'l.ramp', 'l.pulse');
    for (const k of [0, 37, 123, 260, 444, 873]) {
      const phase = (0.1 + (2 * k) / RATE) % 1;
      expect(sine![k]).toBeCloseTo(1 + 3 * Math.sin(2 * Math.PI * phase), 9);
      const tri = phase < 0.25 ? 4 * phase : phase < 0.75 ? 2 - 4 * phase : 4 * phase - 4;
      expect(triangle![k]).toBeCloseTo(1 + 3 * tri, 9);
      expect(ramp![k]).toBeCloseTo(1 + 3 * (2 * phase - 1), 9);
      expect(pulse![k]).toBe(phase < 0.3 ? 4 : -2);
    }
  });
  it('in beats it follows the patch’s tempo, in one time with its clock', () => {
    const patch = patchOf(
      { l: ['lfo', { beats: 3, rateHz: 7 }], c: ['clock'], m: ['mixer'], p: ['parameter'] },
      ['l.out > m.in1', 'c.out > m.in2', 'm.out > p.cv'],
      { bpm: 92, duration: 4 },
    );
    const { outputs } = predict(patch, { cures: false });
    expect(outputs['l.out']!.repeatsEvery).toBeCloseTo((3 * 60) / 92, 12);
    expect(outputs['m.out']!.repeatsEvery).toBeCloseTo((3 * 60) / 92, 12);
    expect(outputs['m.out']!.exact).toBe(true);
  });
  it('fast beats count as a rate in force', () => {
    const patch = patchOf({ l: ['lfo', { beats: 1 / 64 }] }, [], { bpm: 120, duration: 0.01 });
    expect(simulate(patch).sampleRate).toBe(48_000);
  });
  it('once: rests at its phase, runs one cycle from each reset, rests again', () => {
    const gate = { points: [0, 0.1, 0.2, 0.9].map((t, i) => ({ t, volts: [0, 5, 0, 5][i]! })), interpolation: 'hold' };
    const patch = patchOf(
      { g: ['gesture', gate], l: ['lfo', { mode: 'once', shape: 'rampUp', rateHz: 4, phase: 0.25 }] },
      ['g.out > l.reset'],
      { duration: 1, sampleRate: RATE },
    );
    const [out] = run(patch, 'l.out');
    const at = (phase: number): number => -5 + 10 * (phase % 1);
    expect(out![50]).toBeCloseTo(at(0.25), 9);
    expect(out![100]).toBeCloseTo(at(0.25), 9);
    expect(out![200]).toBeCloseTo(at(0.65), 9);
    expect(out![349]).toBeCloseTo(at(1.246), 9);
    expect(out![360]).toBeCloseTo(at(0.25), 9);
    expect(out![925]).toBeCloseTo(at(0.35), 9);
    expect(predict(patch).outputs['l.out']!.repeatsEvery).toBeNull();
  });
  it('once, and stepped, draws anew at each reset', () => {
    const patch = patchOf(
      { c: ['clock', { bpm: 600 }], l: ['lfo', { mode: 'once', shape: 'stepped', rateHz: 100 }] },
      ['c.out > l.reset'],
      { duration: 1, sampleRate: RATE },
    );
    const [out] = run(patch, 'l.out');
    const held = Array.from({ length: 10 }, (_, i) => out![i * 100 + 50]!);
    expect(new Set(held).size).toBe(10);
    expect(Array.from({ length: 10 }, (_, i) => out![i * 100 + 99]!)).toEqual(held);
  });
});

describe('an envelope that rests elsewhere', () => {
  const key = { points: [0, 0.1, 0.6].map((t, i) => ({ t, volts: [0, 5, 0][i]! })), interpolation: 'hold' };
  const straight = { attackCurve: 0, decayCurve: 0, attack: 0.1, decay: 0.1, release: 0.2, sustain: 0.5 };
  const patch = (params: object, more: readonly string[] = [], parts: object = {}) =>
    patchOf(
      { g: ['gesture', key], e: ['envelope', { ...straight, ...params }], ...parts } as never,
      ['g.out > e.gate', ...more],
      { duration: 1, sampleRate: RATE },
    );
  it('moves from rest to peak, to its share between them, and back to rest', () => {
    const [out, inverted] = run(patch({ restVolts: -2, peakVolts: 6 }), 'e.out', 'e.inverted');
    expect([0, 150, 200, 250, 400, 700, 900].map((k) => out![k])).toEqual(
      [-2, 2, 6, 4, 2, 0, -2].map((v) => expect.closeTo(v, 9)),
    );
    expect(inverted![150]).toBeCloseTo(-2, 9);
    expect(predict(patch({ restVolts: -2, peakVolts: 6 })).outputs['e.out']!.bound).toEqual([-2, 6]);
  });
  it('says while it rises', () => {
    const [rising] = run(patch({}), 'e.rising');
    expect([99, 100, 199, 200, 700].map((k) => rising![k])).toEqual([0, 5, 5, 0, 0]);
  });
  it('stretches a stage by the voltage at its first sample', () => {
    const [out] = run(
      patch({ timeAmount: 0.5, peakVolts: 8 }, ['t.out > e.time'], { t: ['constant', { volts: 2 }] }),
      'e.out',
    );
    // Twice the time: up by 0.3 s, where it was at 0.2 s.
    expect(out![200]).toBeCloseTo(4, 9);
    expect(out![300]).toBeCloseTo(8, 9);
    expect(out![400]).toBeCloseTo(6, 9);
  });
});

describe('a lag with three amounts', () => {
  it('takes its times by what each input is worth', () => {
    const patch = patchOf(
      {
        c: ['constant', { volts: 2 }],
        s: ['lfo', { shape: 'pulse', rateHz: 1, phase: 0.5, lowVolts: 0, highVolts: 4 }],
        x: ['slew', { rise: 1, fall: 1, riseAmount: -0.5, bothAmount: 0.5 }],
        d: ['constant', { volts: 1 }],
      },
      ['s.out > x.in', 'c.out > x.riseCv', 'd.out > x.bothCv'],
      { duration: 1, sampleRate: RATE },
    );
    // Rise: 2^(−0.5·2 + 0.5·1) s for 10 V; fall: 2^(0.5) s.
    const [out] = run(patch, 'x.out');
    expect(out![700]! - out![600]!).toBeCloseTo((0.1 * 10) / 2 ** -0.5, 9);
    expect(reading(patch, 'x.riseCv')).toMatchObject({ quantity: 'time', low: expect.closeTo(2 ** -0.5, 12) });
    expect(reading(patch, 'x.fallCv').high).toBeCloseTo(2 ** 0.5, 12);
    expect(reading(patch, 'x.bothCv')).toMatchObject({ quantity: 'volts', low: 1, high: 1 });
  });
});

describe('readings of inputs', () => {
  const swing = ['lfo', { lowVolts: -1, highVolts: 4 }] as const;
  const at = (kind: string, socket: string, params: object, source = swing, more: object = {}) =>
    reading(
      patchOf({ l: source, x: [kind, params], ...more } as never, [`l.out > x.${socket}`], { duration: 2 }),
      `x.${socket}`,
    );

  it('a low-pass gate’s frequency, with the time beyond each side', () => {
    const r = at('lowPassGate', 'cv', { unityVolts: 3 });
    expect(r).toMatchObject({ quantity: 'frequency', unit: 'Hz', low: 20, high: 20_000 });
    expect(r.pinnedLowPercent).toBeCloseTo(20, 1);
    expect(r.pinnedHighPercent).toBeCloseTo(20, 1);
  });
  it('a polarizer’s gain, which is nothing where it turns over', () => {
    const r = at('polarizer', 'cv', { gain: 2, modulation: 0.8, unityVolts: 4 });
    expect(r).toMatchObject({ quantity: 'gain', unit: 'dB', high: expect.closeTo(20 * Math.log10(2), 9) });
    expect(r).toMatchObject({ low: null, silent: true });
  });
  it('a ring modulator’s gain for the other input, with what bleeds', () => {
    const r = at('ringMod', 'b', { coupling: 'dc', scaleVolts: 5, bleedA: 0.05 }, ['constant', { volts: 3 }] as never);
    expect(r).toMatchObject({ quantity: 'gain', low: expect.closeTo(20 * Math.log10(0.65), 9) });
  });
  it('a delay’s feedback and an oscillator’s width, in per cent', () => {
    expect(at('delay', 'feedback', { feedbackAmount: 0.5 })).toMatchObject({ low: 40, high: 90, unit: '%' });
    const r = at('oscillator', 'pwm', { width: 0.6, pwmAmount: 1 });
    expect(r).toMatchObject({ quantity: 'width', low: expect.closeTo(50, 9), high: expect.closeTo(99, 9) });
    expect(r.pinnedHighPercent).toBeGreaterThan(0);
  });
  it('pulses a second by whole periods, where a gate waits, a comparator or a follower', () => {
    const slow = patchOf(
      { c: ['clock', { bpm: 7 }], e: ['envelope'], k: ['comparator', { thresholdVolts: 3 }], f: ['follower'] },
      ['c.out > e.gate', 'c.out > k.in', 'c.out > f.in'],
      { duration: 9 },
    );
    for (const socket of ['e.gate', 'k.in', 'f.in']) {
      expect(reading(slow, socket)).toMatchObject({ quantity: 'pulses', unit: '/s', counted: true, always: null });
      expect(reading(slow, socket).low).toBeCloseTo(7 / 60, 9);
    }
  });
  it('a gate that is always up makes no pulses; one that never comes up is always low', () => {
    const constant = (volts: number) =>
      reading(patchOf({ c: ['constant', { volts }], e: ['envelope'] }, ['c.out > e.gate'], { duration: 1 }), 'e.gate');
    expect(constant(3)).toMatchObject({ always: 'high', low: 0, high: 0, highPercent: 100 });
    expect(constant(0.5)).toMatchObject({ always: 'low', low: 0, high: 0 });
  });
});

describe('what has settled', () => {
  it('forgets the start at the first input', () => {
    const patch = patchOf(
      {
        l: ['lfo', { shape: 'pulse', rateHz: 1, lowVolts: -4, highVolts: 4 }],
        s: ['slew', { law: 'rc', rise: 2, fall: 2 }],
      },
      ['l.out > s.in'],
      { duration: 12 },
    );
    // A square through an rc lag: tanh(T/4τ) of it is left, T its period, τ = 2/5 s.
    const left = 4 * Math.tanh(1 / (4 * 0.4));
    const { seen, settled } = predict(patch, { cures: false }).outputs['s.out']!;
    expect(seen![1]).toBeCloseTo(4, 9);
    expect(settled).toEqual([expect.closeTo(-left, 2), expect.closeTo(left, 2)]);
    const finding = predict(patch).findings.find((f) => f.code === 'lag-short')!;
    expect(finding.numbers.spanRatio).toBeCloseTo(left / 4, 3);
  });
  it('is not said of what draws, nor where it does not differ', () => {
    const patch = patchOf(
      {
        n: ['noise'],
        s: ['slew', { law: 'rc', rise: 0.1, fall: 0.1 }],
        l: ['lfo'],
        t: ['slew', { rise: 0.01, fall: 0.01 }],
      },
      ['n.out > s.in', 'l.out > t.in'],
      { duration: 1 },
    );
    const { outputs } = predict(patch, { cures: false });
    expect(outputs['s.out']).not.toHaveProperty('settled');
    expect(outputs['t.out']).not.toHaveProperty('settled');
  });
});
