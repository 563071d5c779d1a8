import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { tolerance } from './tolerance';
import type { Share } from './shares';

/** Evenly, in thousandths. */
const within = (min: number, max: number) => fc.integer({ min: 1000 * min, max: 1000 * max }).map((n) => n / 1000);
const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);

/** The shares of a steady voltage through a scale and an offset into a filter. */
function sharesFor(volts: number, amount: number, lift: number, errors: object = {}): Map<string, Share> {
  const patch = patchOf(
    {
      c: ['constant', { volts }],
      o: ['offset', { amount, volts: lift }],
      f: ['filter', { cutoffHz: 400 }],
    },
    ['c.out > o.in', 'o.out > f.cutoff'],
    { duration: 0.1, loading: 'ideal' },
  );
  const { shares } = tolerance(patch, { draws: 2, ...errors });
  return new Map(shares.filter((s) => s.at === 'f.cutoff').map((s) => [s.knob, s]));
}

/** Octaves that one sigma of each knob moves the cutoff by: a share of its travel, through what stands behind it. */
const octavesOf = (volts: number, amount: number, lift: number, sigma = 0.01) => ({
  'c.volts': sigma * 10 * Math.abs(amount),
  'o.amount': sigma * 2 * Math.abs(volts),
  'o.volts': sigma * 10,
  'f.cutoffHz': sigma * Math.log2(20_000 / 16),
  // Full up, where it is off one way alone.
  'f.cutoffAmount': sigma * Math.abs(amount * volts + lift),
});

describe('which knob makes how much of a spread', () => {
  it('is the square of what each is off by alone, of all together', () => {
    fc.assert(
      fc.property(within(-3, 3), within(-0.9, 0.9), within(-1, 1), (volts, amount, lift) => {
        fc.pre(Math.abs(volts) > 0.1 && Math.abs(amount) > 0.05);
        const shares = sharesFor(volts, amount, lift);
        const off = octavesOf(volts, amount, lift);
        const all = sum(Object.values(off).map((o) => o ** 2));
        for (const [knob, octaves] of Object.entries(off)) {
          expect(shares.get(knob)?.low ?? 0, knob).toBeCloseTo(octaves ** 2 / all, 6);
          expect(shares.get(knob)?.high ?? 0, knob).toBeCloseTo(octaves ** 2 / all, 6);
        }
        expect(sum([...shares.values()].map((s) => s.low))).toBeCloseTo(1, 9);
      }),
      { numRuns: 15 },
    );
  });
  it('a degree of 300 makes a three hundredth of the travel, in cents, and up is up', () => {
    const shares = sharesFor(2, -0.5, 0.3);
    const cents = (knob: string): number => shares.get(knob)!.perDegree[0];
    expect(shares.get('o.volts')!.unit).toBe('cents');
    expect(cents('o.volts')).toBeCloseTo((1200 * 10) / 300, 6);
    // Through a scale that inverts; a wider scale falls further below.
    expect(cents('c.volts')).toBeCloseTo((-0.5 * 1200 * 10) / 300, 6);
    expect(cents('o.amount')).toBeCloseTo((2 * 1200 * 2) / 300, 6);
    expect(cents('f.cutoffHz')).toBeCloseTo((1200 * Math.log2(20_000 / 16)) / 300, 6);
  });
  it('of a module that is set better is less, by the square; of one that is exact, nothing', () => {
    const shares = sharesFor(2, 0.5, 0, { modules: { c: { knob: 0.02 }, f: { knob: 0 } } });
    const off = { ...octavesOf(2, 0.5, 0), 'c.volts': 0.02 * 10 * 0.5, 'f.cutoffHz': 0, 'f.cutoffAmount': 0 };
    const all = sum(Object.values(off).map((o) => o ** 2));
    expect(shares.get('c.volts')!.low).toBeCloseTo(off['c.volts'] ** 2 / all, 6);
    expect(shares.get('o.volts')!.low).toBeCloseTo(off['o.volts'] ** 2 / all, 6);
    expect(shares.has('f.cutoffHz')).toBe(false);
  });
  it('goes by the end: a lift moves both alike, a scale each by its own volts', () => {
    const patch = patchOf(
      { l: ['lfo', { lowVolts: -1, highVolts: 4 }], o: ['offset', { amount: 0.5 }], f: ['filter', { cutoffHz: 400 }] },
      ['l.out > o.in', 'o.out > f.cutoff'],
      { duration: 1, loading: 'ideal' },
    );
    const shares = tolerance(patch, { modules: { l: { knob: 0 }, f: { knob: 0 } } }).shares;
    const of = (knob: string): Share => shares.find((s) => s.knob === knob && s.at === 'f.cutoff')!;
    // 0.02 of a scale of −1 and of 4 V, beside 0.1 V of an offset.
    const shareOf = (volts: number): number => (0.02 * volts) ** 2 / ((0.02 * volts) ** 2 + 0.1 ** 2);
    expect(of('o.amount').low).toBeCloseTo(shareOf(1), 6);
    expect(of('o.amount').high).toBeCloseTo(shareOf(4), 6);
    expect(of('o.volts').low).toBeCloseTo(1 - shareOf(1), 6);
    expect(of('o.amount').perDegree[0]).toBeLessThan(0);
    expect(of('o.amount').perDegree[1]).toBeGreaterThan(0);
  });
});
