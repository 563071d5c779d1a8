import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { standingsOf } from './problem/runner';
import { cyclesIn, likenessOf, SHAPES, thinned } from './problem/shapes';

const figures = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const law = (arbitraries: readonly fc.Arbitrary<number>[], holds: (...figures: number[]) => void, numRuns = 30) =>
  fc.assert(
    fc.property(fc.tuple(...arbitraries), (all) => void holds(...all)),
    { numRuns },
  );

/** How far a slow triangle between two voltages, at a filter of 1 kHz, is from what is wanted of it. */
function missed(lowVolts: number, highVolts: number, target: object) {
  const patch = patchOf(
    { l: ['lfo', { lowVolts, highVolts }], f: ['filter', { cutoffHz: 1000 }] },
    ['l.out > f.cutoff'],
    { duration: 1, sampleRate: 2000 },
    { targets: [{ at: 'f.cutoff', ...target }] },
  );
  return standingsOf(patch)[0]!;
}
const hertz = (volts: number): number => 1000 * 2 ** volts;

describe('how far a range is missed', () => {
  // Up to 16 kHz: a filter reads no more than 20.
  const three = [figures(-3, -0.5), figures(0.5, 3), figures(-3, 1), figures(0.2, 3)];
  it('is the worse end, in volts of the drive, whatever it is said in', () => {
    law(three, (low, high, from, span) => {
      const worst = Math.max(Math.abs(low - from), Math.abs(high - from - span));
      expect(missed(low, high, { quantity: 'volts', low: from, high: from + span }).error).toBeCloseTo(worst, 9);
      const said = missed(low, high, { quantity: 'frequency', low: hertz(from), high: hertz(from + span) });
      expect(said.error).toBeCloseTo(worst, 9);
      expect(said.met).toBe(worst <= 0.01);
    });
  });
  it('beyond what the filter reads is that to its last figure, and a volt at least', () => {
    law([figures(-3, -0.5), figures(0.5, 3), figures(4.33, 8)], (low, high, to) => {
      const worst = Math.max(1, Math.log2(20) - high);
      const { met, error } = missed(low, high, { quantity: 'frequency', low: hertz(low), high: hertz(to) });
      expect([met, error]).toEqual([false, expect.closeTo(worst, 6)]);
    });
  });
  it('of a free end is that of the other alone', () => {
    law(three, (low, high, from) => {
      expect(missed(low, high, { quantity: 'volts', low: null, high: from }).error).toBeCloseTo(
        Math.abs(high - from),
        9,
      );
      expect(missed(low, high, { quantity: 'volts', low: from, high: null }).error).toBeCloseTo(
        Math.abs(low - from),
        9,
      );
    });
  });
  it('inside which it shall stay is nothing inside, else how far it leaves', () => {
    law(three, (low, high, from, span) => {
      const out = Math.max(0, from - low, high - from - span);
      const target = { want: 'within', quantity: 'volts', low: from, high: from + span };
      expect(missed(low, high, target).error).toBeCloseTo(out, 9);
    });
  });
  it('so wide about a centre is its width or its middle, whichever is further off', () => {
    law(three, (low, high, centre, span) => {
      const width = Math.abs(high - low - span);
      const middle = Math.abs((high + low) / 2 - centre);
      const octaves = { want: 'span', quantity: 'frequency', span, centre: hertz(centre) };
      expect(missed(low, high, octaves).error).toBeCloseTo(Math.max(width, middle), 6);
      expect(missed(low, high, { ...octaves, centre: null }).error).toBeCloseTo(width, 6);
    });
  });
  it('on average is how far the middle of a triangle lies from it', () => {
    law(
      [figures(-3, -0.5), figures(0.5, 3), figures(-3, 3)],
      (low, high, value) => {
        const { error } = missed(low, high, { want: 'mean', quantity: 'volts', value });
        expect(error).toBeCloseTo(Math.abs((low + high) / 2 - value), 3);
      },
      10,
    );
  });
});

describe('two that are tied', () => {
  /** One oscillator to two filters, by an amount and an offset each. */
  const tied = (want: string, first: readonly [number, number], second: readonly [number, number]) => {
    const stage = ([amount, volts]: readonly [number, number]) => ['offset', { amount, volts }] as const;
    const patch = patchOf(
      { l: ['lfo'], a: stage(first), b: stage(second), f: ['filter'], g: ['filter'] },
      ['l.out > a.in', 'l.out > b.in', 'a.out > f.cutoff', 'b.out > g.cutoff'],
      { duration: 0.1 },
      { targets: [{ at: 'f.cutoff', want, to: 'g.cutoff' }] },
    );
    return standingsOf(patch)[0]!;
  };
  it('are missed by what is left of their sum or difference, wherever each is lifted', () => {
    law([figures(0.1, 1), figures(-1, -0.1), figures(-2, 2)], (a, b, lift) => {
      expect(tied('opposite', [a, 0], [b, lift]).error).toBeCloseTo(10 * Math.abs(a + b), 9);
      expect(tied('same', [a, lift], [b, 0]).error).toBeCloseTo(10 * Math.abs(a - b), 9);
    });
    expect(tied('opposite', [0.4, 1], [-0.4, 2]).met).toBe(true);
    expect(tied('same', [0.4, 1], [0.4, 2]).met).toBe(true);
  });
  it('that stand still are not met for that', () => {
    expect(tied('opposite', [0, 1], [0, 2])).toMatchObject({ met: false, error: expect.closeTo(0.1, 9) });
  });
});

describe('how much a trace is like a shape', () => {
  const N = 1024;
  const trace = (shape: (phase: number) => number, cycles: number, phase = 0) =>
    Float64Array.from({ length: N }, (_, k) => {
      const turn = (cycles * k) / N + phase;
      return shape(turn - Math.floor(turn));
    });
  it('is all of it, whatever its size, its lift, its phase and which way up', () => {
    for (const [name, shape] of Object.entries(SHAPES)) {
      law(
        [fc.integer({ min: 1, max: 6 }), figures(0, 1), figures(0.2, 5), figures(-5, 5)],
        (cycles, phase, size, lift) => {
          const told = likenessOf(
            trace(shape, cycles, phase).map((v) => lift - size * v),
            shape,
            cycles,
          );
          // A jump that falls between two samples is as near as a sample is.
          expect(told, name).toBeGreaterThan(name === 'square' || name === 'ramp' ? 0.97 : 0.9999);
        },
        6,
      );
    }
  });
  it('is the square of their correlation, by closed forms', () => {
    const { sine, triangle, ramp, square } = SHAPES;
    const all = [
      [triangle, sine, 96 / Math.PI ** 4],
      [square, sine, 8 / Math.PI ** 2],
      [ramp, sine, 6 / Math.PI ** 2],
      [square, triangle, 3 / 4],
      [ramp, square, 3 / 4],
    ] as const;
    for (const [one, other, share] of all) {
      expect(likenessOf(trace(one, 2), other, 2)).toBeCloseTo(share, 2);
      expect(likenessOf(trace(other, 2), one, 2)).toBeCloseTo(share, 2);
    }
  });
  it('of what stands still is none', () => {
    expect(likenessOf(new Float64Array(N).fill(3), SHAPES.sine, 1)).toBe(0);
  });
  it('counts periods by their middle, past ripples, and at least one', () => {
    for (const cycles of [1, 2, 7, 30]) expect(cyclesIn(trace(SHAPES.triangle, cycles), [-1, 1])).toBe(cycles);
    const rippled = trace(SHAPES.sine, 3).map((v, k) => v + 0.008 * Math.sin(k));
    expect(cyclesIn(rippled, [-1, 1])).toBe(3);
    expect(cyclesIn(new Float64Array(N), [0, 0])).toBe(1);
  });
  it('is asked of a thousand points at most, over all of the trace', () => {
    const long = Float64Array.from({ length: 50_000 }, (_, k) => k);
    const thin = thinned(long);
    expect(thin).toHaveLength(1024);
    expect([thin[0], thin[512]]).toEqual([0, 25_000]);
    expect(thinned(thin)).toBe(thin);
  });
});
