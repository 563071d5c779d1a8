import { describe, expect, it } from 'vitest';
import { TRUE_MODULE } from '../document/real';
import type { RealModule } from '../document/real';
import type { Patch } from '../document/types';
import { patchOf } from '../testing/patch';
import { predict } from './predict';

/** A hand that turns a knob from one value to another, which it reaches within a step of the simulation. */
const turned = (at: string, from: number, to: number) => ({
  hands: [
    {
      at,
      points: [
        { t: 0, value: from },
        { t: 0.04344745, value: to },
      ],
      interpolation: 'linear',
      loop: false,
    },
  ],
});
const readingAt = (patch: Patch, at: string) => predict(patch).readings.find((r) => r.at === at)!;
const short = { duration: 0.06, sampleRate: 8000 };

describe('a destination’s own knob that a hand turns', () => {
  it('takes a gain through silence where its sign changes, whichever knob does it', () => {
    const amplifier = patchOf(
      { c: ['constant', { volts: 4 }], v: ['vca', { quadrants: 4, cvAmount: 1, unityVolts: 5 }] },
      ['c.out > v.cv'],
      short,
      turned('v.cvAmount', 1, -0.5),
    );
    expect(readingAt(amplifier, 'v.cv')).toMatchObject({ low: null, silent: true, high: expect.closeTo(-1.938, 3) });
    const polarizer = patchOf(
      { c: ['constant', { volts: 5 }], p: ['polarizer', { modulation: 0 }] },
      ['c.out > p.cv'],
      short,
      turned('p.gain', 1, -0.5),
    );
    expect(readingAt(polarizer, 'p.cv')).toMatchObject({ low: null, high: expect.closeTo(0, 9) });
  });
  it('leaves a gain whose sign stays the same above its least', () => {
    const polarizer = patchOf(
      { c: ['constant', { volts: 5 }], p: ['polarizer', { modulation: 0 }] },
      ['c.out > p.cv'],
      short,
      turned('p.gain', 1, 0.5),
    );
    expect(readingAt(polarizer, 'p.cv').low).toBeCloseTo(20 * Math.log10(0.5), 9);
  });
  it('changes nothing of a frequency where nothing is modulated: a depth that passes 0', () => {
    const tone = patchOf(
      {
        c: ['constant', { volts: 1 }],
        l: ['lfo', { rateHz: 100 }],
        o: ['oscillator', { baseHz: 110, fmLaw: 'linear' }],
        none: ['attenuator', { amount: 0 }],
      },
      ['c.out > o.pitch', 'l.out > none.in', 'none.out > o.fm'],
      short,
      turned('o.fmAmount', 1, 0),
    );
    for (const figure of ['low', 'high', 'arrivesLow', 'arrivesHigh', 'seenLow', 'seenHigh'] as const)
      expect(readingAt(tone, 'o.pitch')[figure], figure).toBeCloseTo(220, 9);
  });
});

describe('a module as it is measured', () => {
  const off = (patch: Patch, real: Partial<RealModule>): Patch => ({
    ...patch,
    modules: patch.modules.map((m) => ({ ...m, real: { ...TRUE_MODULE, ...real } })),
  });
  const at = (patch: Patch, socket: string) => predict(patch).outputs[socket]!;

  it('still ends at its rails', () => {
    const { bound, seen } = at(
      off(patchOf({ c: ['constant', { lowVolts: 0, highVolts: 10, volts: 10 }] }, [], short), { gain: 1.5 }),
      'c.out',
    );
    expect([bound, seen]).toEqual([
      [12, 12],
      [12, 12],
    ]);
  });
  it('comes to them with less gain, too, where it would go beyond', () => {
    const wide = patchOf({ l: ['lfo', { rateHz: 100, lowVolts: -12, highVolts: 12 }] }, [], {
      ...short,
      railVolts: 10,
    });
    const { bound, seen } = at(off(wide, { gain: 0.9, offsetVolts: 0.1 }), 'l.out');
    expect(bound).toEqual([-10, 10]);
    expect(seen![0]).toBe(-10);
    expect(seen![1]).toBe(10);
  });
});

describe('a voltage that sums leave a rounding beside where it belongs', () => {
  it('is high at a threshold that it meets: a level of another comparator', () => {
    const met = patchOf(
      {
        c: ['comparator', { thresholdVolts: -6.78318, hysteresis: 0, lowVolts: -12, highVolts: 9.76986 }],
        d: ['comparator', { thresholdVolts: -12 }],
      },
      ['c.inverted > d.in'],
      short,
    );
    expect(predict(met).outputs['d.out']).toMatchObject({ bound: [5, 5], seen: [5, 5] });
  });
  it('is silence where an amplifier is left with the last bit of 0.1 + 0.2 − 0.3 V', () => {
    const left = patchOf(
      {
        a: ['constant', { volts: 0.1 }],
        b: ['constant', { volts: 0.2 }],
        c: ['constant', { volts: -0.3 }],
        m: ['mixer', { inputs: 3 }],
        v: ['vca'],
      },
      ['a.out > m.in1', 'b.out > m.in2', 'c.out > m.in3', 'm.out > v.cv'],
      short,
    );
    expect(predict(left).outputs['m.out']!.bound[0]).toBeGreaterThan(0);
    expect(readingAt(left, 'v.cv').low).toBeNull();
  });
});

describe('a knob that is not linear', () => {
  it('turns around right behind an end of its way within the bound: a fold, wherever its clip level ends', () => {
    const folded = (from: number) =>
      patchOf(
        { c: ['constant', { volts: 3 }], f: ['shaper', { gain: 9, biasVolts: -4, folds: 1, knee: 'soft' }] },
        ['c.out > f.in'],
        short,
        turned('f.clipVolts', from, 24),
      );
    // v = 23 V: at the level c it comes out as c·tanh(2 − 23/c), lowest at c = 23/(w + 2) = 6.9874 V, where sinh 2w = 2w + 4.
    const level = 23 / 3.2917102500399398;
    const lowest = level * Math.tanh(2 - 23 / level);
    for (let from = 6.12; from < 14; from += 0.25) {
      const { bound, seen } = predict(folded(from)).outputs['f.out']!;
      expect(seen![0], `from ${from}`).toBeGreaterThanOrEqual(bound[0] - 1e-9);
      expect(seen![1], `from ${from}`).toBeLessThanOrEqual(bound[1] + 1e-9);
      if (from < level) expect(bound[0], `from ${from}`).toBeCloseTo(lowest, 9);
    }
  });
  it('holds a crossfade of equal power wherever two hands bring it', () => {
    const faded = patchOf(
      { a: ['constant', { volts: 3 }], b: ['constant', { volts: 4 }], x: ['crossfade', { law: 'equalPower' }] },
      ['a.out > x.in', 'b.out > x.in2', 'b.out > x.cv'],
      short,
      { hands: [...turned('x.position', 0.55, 0.07).hands, ...turned('x.cvAmount', -0.11, 0.62).hands] },
    );
    const { bound, seen } = predict(faded).outputs['x.out']!;
    // in·cos + in2·sin is highest, 5 V, where the tangent is 4/3: passed on the way.
    expect(bound[1]).toBeGreaterThanOrEqual(5);
    expect(seen![0]).toBeGreaterThanOrEqual(bound[0]);
    expect(seen![1]).toBeLessThanOrEqual(bound[1]);
  });
});
