import { describe, expect, it } from 'vitest';
import type { Target } from '../document/targets';
import { patchOf } from '../testing/patch';
import { tolerance } from './tolerance';

const patch = patchOf({ c: ['constant', { volts: 4 }], a: ['attenuverter', { amount: 0.5 }] }, ['c.out > a.in']);

it('spreads by the knobs’ and gains’ errors together', () => {
  const { draws, outputs } = tolerance(patch);
  expect(draws).toBe(500);
  // The constant: 1% of 10 V of travel and 0.5% of 4 V; 1.645 sigma on each side.
  const sigma = Math.hypot(0.1, 0.02, 0.005);
  const [low, high] = outputs['c.out']!.max;
  expect((high - low) / (2 * 1.645 * sigma)).toBeGreaterThan(0.85);
  expect((high - low) / (2 * 1.645 * sigma)).toBeLessThan(1.15);
  expect((low + high) / 2).toBeCloseTo(4, 1);
  // Behind the attenuverter: half of that, 2% of 4 V for its own knob, its gain.
  const behind = Math.hypot(sigma / 2, 0.02 * 4, 0.01, 0.005);
  const [a, b] = outputs['a.out']!.max;
  expect((b - a) / (2 * 1.645 * behind)).toBeGreaterThan(0.85);
  expect((b - a) / (2 * 1.645 * behind)).toBeLessThan(1.15);
});
it('is the same each time, and nothing where nothing is off', () => {
  expect(tolerance(patch)).toEqual(tolerance(patch));
  expect(tolerance(patch, { knob: 0, gain: 0, offset: 0 }).outputs['a.out']).toEqual({ min: [2, 2], max: [2, 2] });
});

it('never leaves the rails, and spreads the readings in their own unit', () => {
  const hot = patchOf(
    { l: ['lfo', { lowVolts: -12, highVolts: 12 }], o: ['offset', { amount: 3, maxAmount: 4 }], f: ['filter'] },
    ['l.out > o.in', 'l.out > f.cutoff'],
    { railVolts: 12 },
  );
  const { outputs, readings } = tolerance(hot, { gain: 0.05 });
  for (const { min, max } of Object.values(outputs)) {
    expect(Math.min(...min, ...max)).toBeGreaterThanOrEqual(-12);
    expect(Math.max(...min, ...max)).toBeLessThanOrEqual(12);
  }
  const cutoff = readings.find((r) => r.at === 'f.cutoff')!;
  expect(cutoff).toMatchObject({ quantity: 'frequency', unit: 'Hz' });
  expect(cutoff.low[0]).toBeLessThanOrEqual(cutoff.low[1]);
});

it('of a knob that a hand turns is what it would be wherever the hand has it', () => {
  const turned = {
    ...patchOf({ c: ['constant', { volts: 5, highVolts: 5 }], a: ['attenuverter'] }, ['c.out > a.in']),
    hands: [
      {
        at: 'a.amount',
        points: [
          { t: 0, value: -0.5 },
          { t: 2, value: 0.5 },
        ],
        interpolation: 'linear' as const,
        loop: false,
      },
    ],
  };
  const { outputs } = tolerance(turned, { gain: 0, offset: 0, knob: 0, modules: { a: { knob: 0.01 } } });
  // 1% of a travel of 2, times 5 V: 0.1 V; at either end of the hand's way.
  for (const [range, middle] of [
    [outputs['a.out']!.min, -2.5],
    [outputs['a.out']!.max, 2.5],
  ] as const) {
    expect((range[0] + range[1]) / 2).toBeCloseTo(middle, 1);
    expect((range[1] - range[0]) / (2 * 1.645 * 0.1)).toBeGreaterThan(0.85);
    expect((range[1] - range[0]) / (2 * 1.645 * 0.1)).toBeLessThan(1.15);
  }
});

describe('knobs that a hand sets too coarsely', () => {
  const limitedFor = (target: object) =>
    tolerance({
      ...patchOf(
        {
          slow: ['lfo'],
          lift: ['offset', { amount: 0.5, volts: 1 }],
          trim: ['attenuator', { amount: 0.1 }],
          tone: ['filter', { cutoffHz: 400 }],
          dark: ['filter'],
        },
        ['slow.out > lift.in', 'lift.out > tone.cutoff', 'slow.out > trim.in', 'trim.out > dark.cutoff'],
      ),
      targets: [{ at: 'tone.cutoff', quantity: 'frequency', ...target } as Target],
    }).handLimited;
  const of = (found: ReturnType<typeof limitedFor>, knob: string): number | undefined =>
    found.find((h) => h.knob === knob)?.share;

  it('are those whose half percent moves an end by over a thousandth of the wanted span, the worst first', () => {
    // Offset −1.5 to 3.5 V, a volt an octave: five octaves about 800 Hz.
    const found = limitedFor({ low: 400 * 2 ** -1.5, high: 400 * 2 ** 3.5 });
    // Half a percent of −5..5 V; of −1..1 times 5 V; of the octaves from 16 Hz to 20 kHz.
    expect(of(found, 'lift.volts')).toBeCloseTo(0.05 / 5, 9);
    expect(of(found, 'lift.amount')).toBeCloseTo(0.05 / 5, 9);
    expect(of(found, 'tone.cutoffHz')).toBeCloseTo((0.005 * Math.log2(20_000 / 16)) / 5, 9);
    expect(found.every((h) => h.set === 'by ear')).toBe(true);
    expect(found.map((h) => h.share)).toEqual(found.map((h) => h.share).toSorted((a, b) => b - a));
    expect(of(found, 'trim.amount')).toBeUndefined();
  });

  it('are measured by the target: wider asks less, a free end takes the reached span, volts go by meter', () => {
    expect(of(limitedFor({ low: 100, high: 100 * 2 ** 10 }), 'lift.volts')).toBeCloseTo(0.05 / 10, 9);
    expect(of(limitedFor({ low: null, high: 4000 }), 'lift.volts')).toBeCloseTo(0.05 / 5, 9);
    const volts = limitedFor({ at: 'lift.out', quantity: 'volts', low: -1, high: 3 });
    expect(volts.map((h) => h.set)).toEqual(['by meter', 'by meter']);
    expect(of(volts, 'lift.volts')).toBeCloseTo(0.05 / 4, 9);
    const other = limitedFor({ at: 'dark.cutoff', low: 900, high: 1100 });
    expect(of(other, 'lift.volts')).toBeUndefined();
    expect(of(other, 'trim.amount')).toBeCloseTo(0.025 / Math.log2(1100 / 900), 9);
  });
});

it('is of what arrives behind a lag, and says so', () => {
  // A sine through an rc lag of T s: 1/√(1 + (2πfT/5)²) of it arrives; 3/4 of ±5 V would be bound to ±5 V.
  const [hertz, T] = [1, 0.7];
  const left = 5 / Math.hypot(1, (2 * Math.PI * hertz * T) / 5);
  const slow = patchOf(
    {
      l: ['lfo', { shape: 'sine', rateHz: hertz }],
      s: ['slew', { law: 'rc', rise: T, fall: T }],
      p: ['parameter', { low: -5, high: 5, cvAmount: 0.5 }],
    },
    ['l.out > s.in', 's.out > p.cv'],
    { duration: 4 },
    { targets: [{ at: 's.out', quantity: 'volts', low: -1, high: 1 }] as unknown as Target[] },
  );
  const { readings } = tolerance(slow, { knob: 0, offset: 0, gain: 0.01 });
  const reading = readings.find((r) => r.at === 'p.cv')!;
  expect(reading.by).toBe('settled');
  const width = (reading.highVolts[1] - reading.highVolts[0]) / (2 * 1.645 * 0.01 * Math.SQRT2);
  expect((reading.highVolts[0] + reading.highVolts[1]) / 2).toBeCloseTo(2.5 + left / 2, 1);
  expect(width / (left / 2)).toBeGreaterThan(0.85);
  expect(width / (left / 2)).toBeLessThan(1.15);
});
