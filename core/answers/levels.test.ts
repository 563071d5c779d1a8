import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crossingsOf, jointAt } from '../simulate/joint';
import { levelOf, levelSteps, makeUpDb } from '../simulate/level';
import { patchOf } from '../testing/patch';
import { predict } from './predict';

type Parts = Parameters<typeof patchOf>[0];
const osc = ['oscillator', { baseHz: 440 }] as const;
const db = (x: number): number => 20 * Math.log10(x);
const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** A gain that steps between two values every half second. */
const stepped = (low: number, high: number) =>
  ['lfo', { shape: 'pulse', rateHz: 1, lowVolts: low, highVolts: high }] as const;

describe('level over time', () => {
  it('of a tone is its RMS, and it does not dip', () => {
    const patch = patchOf({ o: osc, x: ['lineOut'] } as Parts, ['o.sine > x.left'], { duration: 1 });
    const level = predict(patch, { cures: false }).levels!['o.sine']!;
    // 22 cycles in 50 ms.
    expect(level.highestDb).toBeCloseTo(db(5 / Math.SQRT2), 6);
    expect(level.dipDb).toBeCloseTo(0, 6);
  });
  it('behind an amplifier dips by as much as its gain falls, and the amplifier says so', () => {
    fc.assert(
      fc.property(within(0.2, 2), within(2.5, 5), (low, high) => {
        const patch = patchOf(
          { o: osc, l: stepped(low, high), a: ['vca'], x: ['lineOut'] } as Parts,
          ['o.sine > a.in', 'l.out > a.cv', 'a.out > x.left'],
          { duration: 2, sampleRate: 8000 },
        );
        const { levels, reductionDb } = predict(patch, { cures: false });
        expect(levels!['a.out']!.dipDb).toBeCloseTo(db(high / low), 2);
        expect(reductionDb!.a).toBeCloseTo(db(high / low), 2);
        expect(levels!['o.sine']!.dipDb).toBeCloseTo(0, 2);
        const makeUp = makeUpDb(levels!['a.out']!, levels!['o.sine']!);
        expect(makeUp).toBeCloseTo(-db(high / 5), 2);
      }),
      { numRuns: 8 },
    );
  });
  it('tells two compressors apart that only differ in how much they take', () => {
    const parts = (amount: number) => ({
      o: osc,
      l: stepped(0, 4),
      f: ['attenuverter', { amount }],
      a: ['vca', { bias: 5 }],
      x: ['lineOut'],
    });
    const cables = ['o.sine > a.in', 'l.out > f.in', 'f.out > a.cv', 'a.out > x.left'];
    const taken = [-0.25, -1].map(
      (amount) =>
        predict(patchOf(parts(amount) as unknown as Parts, cables, { duration: 2, sampleRate: 8000 }), { cures: false })
          .reductionDb!.a,
    );
    expect(taken).toEqual([expect.closeTo(db(5 / 4), 2), expect.closeTo(db(5), 2)]);
  });
  it('of silence is none', () => {
    expect(levelOf(levelSteps(new Float64Array(800), 8000))).toEqual({ highestDb: null, lowestDb: null, dipDb: null });
    expect(levelOf([])).toBeNull();
  });
});

describe('time to arrive', () => {
  const steps = (volts: readonly number[]) =>
    ['sequencer', { steps: volts.map((v) => ({ volts: v, gate: true, tie: false })) }] as const;
  const told = (lag: object, volts: readonly number[], to: string) => {
    const parts = { c: ['clock', { bpm: 60 }], s: steps(volts), g: ['slew', lag], o: osc, p: ['parameter'] };
    const patch = patchOf(parts as unknown as Parts, ['c.out > s.clock', 's.cv > g.in', `g.out > ${to}`], {
      duration: 8,
      sampleRate: 8000,
    });
    return predict(patch, { cures: false }).arriveSeconds!['g.out'];
  };
  it('behind an rc lag of T is T·ln(100)/5 within 1% of each step', () => {
    fc.assert(
      fc.property(within(0.05, 0.6), (T) => {
        const found = told({ law: 'rc', rise: T, fall: T }, [0, 3, 1], 'p.cv')!;
        expect(found.median).toBeCloseTo((T * Math.log(100)) / 5, 3);
        expect(found.worst).toBeCloseTo((T * Math.log(100)) / 5, 3);
      }),
      { numRuns: 6 },
    );
  });
  it('of pitch within 3 cents: linear, by the size of each step', () => {
    const found = told({ law: 'linear', rise: 2, fall: 2 }, [0, 1, 3], 'o.pitch')!;
    // 5 V/s: 0.2 s, 0.4 s and 0.6 s for 1, 2 and 3 V, less 2.5 mV.
    expect(found.median).toBeCloseTo(0.4 - 0.0005, 3);
    expect(found.worst).toBeCloseTo(0.6 - 0.0005, 3);
  });
  it('is told where a step never arrives, and of none where nothing steps', () => {
    expect(told({ law: 'linear', rise: 20, fall: 20 }, [0, 3], 'o.pitch')!.worst).toBeNull();
    const patch = patchOf(
      { l: ['lfo'], g: ['slew', { rise: 0.1 }], p: ['parameter'] } as Parts,
      ['l.out > g.in', 'g.out > p.cv'],
      { duration: 1 },
    );
    expect(predict(patch, { cures: false }).arriveSeconds).toEqual({});
  });
});

describe('when one voltage is at a value', () => {
  it('another is at each crossing what straight lines say', () => {
    const rate = 1000;
    const a = Float64Array.from({ length: 2000 }, (_, k) => Math.sin((2 * Math.PI * k) / rate));
    const b = Float64Array.from({ length: 2000 }, (_, k) => Math.cos((2 * Math.PI * k) / rate));
    const found = crossingsOf(a, b, 0.5, rate);
    expect(found.map((c) => c.rising)).toEqual([true, false, true, false]);
    found.forEach((c) => expect(c.other).toBeCloseTo((c.rising ? 1 : -1) * Math.sqrt(0.75), 4));
    expect(found[0]!.at).toBeCloseTo(1 / 12, 5);
    expect(crossingsOf(a, b, 2, rate)).toEqual([]);
    expect(jointAt(a, b, 'highest', rate)[0]!.other).toBeCloseTo(0, 9);
    expect(jointAt(a, b, 'lowest', rate)).toHaveLength(1);
    expect(jointAt(a, b, 'middle', rate).map((c) => Math.round(c.other))).toEqual([-1, 1, -1]);
  });
  it('of ramps is exact', () => {
    fc.assert(
      fc.property(within(0.1, 0.9), within(-3, 3), (value, slope) => {
        const a = Float64Array.from({ length: 11 }, (_, k) => k / 10);
        const b = a.map((v) => slope * v);
        const [only, ...others] = crossingsOf(a, b, value, 10);
        expect(others).toEqual([]);
        expect(only!.other).toBeCloseTo(slope * value, 9);
        expect(only!.at).toBeCloseTo(value, 9);
      }),
    );
  });
});
