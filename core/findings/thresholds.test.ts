import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import { patchOf } from '../testing/patch';
import type { Finding } from './finding';

type Parts = Parameters<typeof patchOf>[0];

/** The findings of a code in a patch. */
function found(code: string, parts: Parts, cables: readonly string[], more: object = {}): Finding[] {
  const patch = patchOf(parts, cables, { duration: 2, sampleRate: 8000 }, more);
  return predict(patch, { cures: false }).findings.filter((f) => f.code === code);
}
const number = (list: readonly Finding[], name: string): number | null =>
  list.length === 0 ? null : Number(list[0]!.numbers[name]);

const osc = ['oscillator', { baseHz: 220 }] as const;
const triangle = (lowVolts: number, highVolts: number) => ['lfo', { lowVolts, highVolts }] as const;
const steps = (...volts: number[]) => ({ steps: volts.map((v) => ({ volts: v, gate: true, tie: false })) });
const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const db = (ratio: number): number => 20 * Math.log10(ratio);
/** A law over many figures: each a small patch. */
const law = (arbitraries: readonly fc.Arbitrary<number>[], holds: (...figures: number[]) => void) =>
  fc.assert(
    fc.property(fc.tuple(...arbitraries), (figures) => void holds(...figures)),
    { numRuns: 25 },
  );

describe('an amplifier’s control', () => {
  const amplifier = (low: number, high: number, params: object = {}): [Parts, string[]] => [
    { l: triangle(low, high), o: osc, a: ['vca', params] } as never,
    ['l.out > a.cv', 'o.sine > a.in'],
  ];
  it('is shut for the share of a triangle that lies below zero, by as much as it falls', () => {
    law([within(-8, -0.5), within(0.5, 5)], (low, high) => {
      const [shut] = found('vca-shut', ...amplifier(low, high));
      expect(shut!.numbers.shutPercent).toBeCloseTo((100 * -low) / (high - low), 1);
      expect(shut!.numbers.missingVolts).toBeCloseTo(-low, 6);
    });
  });
  it('is not shut by a millivolt, and is by more', () => {
    expect(found('vca-shut', ...amplifier(-0.0009, 5))).toEqual([]);
    expect(found('vca-shut', ...amplifier(-0.0011, 5))).toHaveLength(1);
  });
  it('is short or over by its peak’s decibels, and neither within a hundredth of one', () => {
    law([within(0.3, 9.5)], (peak) => {
      const [short, over] = ['vca-short', 'vca-over'].map((code) => found(code, ...amplifier(0, peak)));
      const told = db(peak / 5);
      if (told < -0.011) expect(number(short!, 'peakDb')).toBeCloseTo(told, 4);
      if (told > 0.011) expect(number(over!, 'peakDb')).toBeCloseTo(told, 4);
      expect([short!.length, over!.length]).toEqual([told < -0.01 ? 1 : 0, told > 0.01 ? 1 : 0]);
    });
    for (const code of ['vca-short', 'vca-over']) {
      expect(found(code, ...amplifier(0, 5 * 10 ** (0.009 / 20)))).toEqual([]);
      expect(found(code, ...amplifier(0, 5 * 10 ** (-0.009 / 20)))).toEqual([]);
    }
  });
  it('is over for the share of a triangle above unity', () => {
    law([within(5.5, 10)], (peak) => {
      expect(number(found('vca-over', ...amplifier(0, peak)), 'overPercent')).toBeCloseTo(100 * (1 - 5 / peak), 1);
    });
  });
});

describe('what is cut off', () => {
  it('a triangle beyond the rails, by the share of time that it would be there', () => {
    law([within(2.5, 4)], (gain) => {
      const list = found('clip', { l: ['lfo'], o: ['offset', { amount: gain, maxAmount: 4 }] }, ['l.out > o.in']);
      expect(number(list, 'clippedPercent')).toBeCloseTo(100 * (1 - 12 / (5 * gain)), 1);
    });
  });
  it('not for a thousandth of the time', () => {
    const over = (share: number) =>
      found('clip', { l: ['lfo'], o: ['offset', { amount: 12 / 5 / (1 - share), maxAmount: 4 }] }, ['l.out > o.in']);
    expect(over(0.0005)).toEqual([]);
    expect(over(0.002)).toHaveLength(1);
  });
  it('a control beyond a window, at each end by its own share', () => {
    law([within(-12, -5.5), within(5.5, 12)], (low, high) => {
      const [pinned] = found('pinned', { l: triangle(low, high), p: ['parameter', { cvAmount: 1 }] }, ['l.out > p.cv']);
      const window = [-2.5, 2.5] as const;
      const span = high - low;
      expect(pinned!.numbers.pinnedLowPercent).toBeCloseTo((100 * (window[0] - low)) / span, 1);
      expect(pinned!.numbers.pinnedHighPercent).toBeCloseTo((100 * (high - window[1])) / span, 1);
    });
  });
  it('what a positive input loses of a triangle below zero', () => {
    law([within(-6, -0.5), within(0.5, 6)], (low, high) => {
      const [lost] = found('lost-negative', { l: triangle(low, high), q: ['quantizer', { accepts: 'positive' }] }, [
        'l.out > q.in',
      ]);
      expect(lost!.numbers.lostPercent).toBeCloseTo((100 * -low) / (high - low), 1);
      expect(lost!.numbers.lowestVolts).toBeCloseTo(low, 6);
    });
  });
});

describe('a gate input', () => {
  const gate = (low: number, high: number, thresholdVolts: number): [Parts, string[]] => [
    { l: triangle(low, high), e: ['envelope', { thresholdVolts }] },
    ['l.out > e.gate'],
  ];
  it('never opens below its threshold, never closes above four fifths of it, and else does both', () => {
    law([within(-5, 5), within(0.5, 5), within(0.5, 5)], (low, span, threshold) => {
      const high = low + span;
      const codes = ['gate-never', 'gate-stuck'].filter((c) => found(c, ...gate(low, high, threshold)).length > 0);
      const never = high < threshold - 1e-6;
      // It falls again below threshold minus hysteresis.
      if (never) expect(codes).toEqual(['gate-never']);
      else if (low >= threshold + 1e-6) expect(codes).toEqual(['gate-stuck']);
      else if (low < 0.75 * threshold && high > threshold + 1e-6) expect(codes).toEqual([]);
    });
  });
});

describe('a pitch', () => {
  it('of another scale is off by 1200 cents an octave times what its gain is off', () => {
    law([within(0.5, 1)], (gain) => {
      fc.pre(Math.abs(gain - 1) > 0.005);
      const list = found(
        'pitch-scale',
        { c: ['clock'], s: ['sequencer', steps(0, 1)], m: ['mixer', { gain1: gain }], o: osc },
        ['c.out > s.clock', 's.cv > m.in1', 'm.out > o.pitch'],
      );
      expect(number(list, 'centsPerOctave')).toBeCloseTo(1200 * (gain - 1), 3);
    });
  });
  it('through a passive mult sags by what two inputs take from the output’s own ohms', () => {
    law([within(600, 5000)], (ohms) => {
      const [finding] = found(
        'loading',
        {
          c: ['clock'],
          s: ['sequencer', steps(0, 1), { outputOhms: { cv: ohms } }],
          m: ['mult', { build: 'passive' }],
          o: osc,
          p: osc,
        },
        ['c.out > s.clock', 's.cv > m.in', 'm.out1 > o.pitch', 'm.out2 > p.pitch'],
      );
      // Two inputs of 100 kilohms side by side.
      const left = 50_000 / (50_000 + ohms);
      expect(finding!.numbers.percent).toBeCloseTo(100 * (1 - left), 2);
      expect(finding!.numbers.cents).toBeCloseTo(1200 * (1 - left), 1);
    });
  });
});

describe('levels to and from the outside', () => {
  it('a mean on the way out is told from 10 mV on', () => {
    const out = (volts: number) =>
      found('dc-out', { o: osc, m: ['offset', { volts }], x: ['lineOut', { padDb: 0 }] }, [
        'o.sine > m.in',
        'm.out > x.left',
      ]);
    expect(out(0.009)).toEqual([]);
    expect(number(out(0.011), 'volts')).toBeCloseTo(0.011, 3);
    law([within(0.05, 4)], (volts) => expect(number(out(volts), 'volts')).toBeCloseTo(volts, 2));
  });
  it('a sine is hot by its decibels over +4 dBu, from one on', () => {
    law([within(0, 20)], (padDb) => {
      const over = db(5 / Math.SQRT2 / 0.7746) - 4 - padDb;
      const list = found('hot-out', { o: osc, x: ['lineOut', { padDb }] }, ['o.sine > x.left']);
      if (over > 1.01) expect(number(list, 'overDb')).toBeCloseTo(over, 2);
      else if (over < 0.99) expect(list).toEqual([]);
    });
  });
  it('what comes in is weak from 20 dB under 5 V on', () => {
    law([within(0.01, 0.5), within(0, 24)], (peak, gainDb) => {
      const under = db(peak / 5) + gainDb;
      const list = found('weak-in', { l: triangle(-peak, peak), i: ['lineIn', { gainDb }] }, ['l.out > i.in']);
      if (under < -20.01) expect(number(list, 'overDb')).toBeCloseTo(under, 3);
      else if (under > -19.99) expect(list).toEqual([]);
    });
  });
});

describe('two that meet', () => {
  it('drift by a quarter of a cycle in a quarter of the time of their beat; alike within a twentieth alone', () => {
    law([within(0.5, 4), within(0.9, 1.1)], (rate, ratio) => {
      fc.pre(Math.abs(ratio - 1) > 0.002 && Math.abs(Math.abs(ratio - 1) - 0.05) > 0.004);
      const list = found(
        'drift',
        { a: ['lfo', { rateHz: rate }], b: ['lfo', { rateHz: rate * ratio }], m: ['mixer'], p: ['parameter'] },
        ['a.out > m.in1', 'b.out > m.in2', 'm.out > p.cv'],
      );
      const [beat, most] = [Math.abs(rate * ratio - rate), Math.max(rate, rate * ratio)];
      if (Math.abs(ratio - 1) > 0.055) expect(list).toEqual([]);
      // Two knobs set alike may still be a hundredth apart.
      else if (Math.abs(ratio - 1) < 0.045)
        expect(number(list, 'driftSeconds')).toBeCloseTo(0.25 / Math.max(beat, 0.01 * most), 6);
    });
  });
  it('outputs of under 100 ohms are tied, by what is between them', () => {
    law([within(1, 300), within(1, 300)], (a, b) => {
      const list = found(
        'tied',
        {
          a: ['lfo', {}, { outputOhms: { out: a } }],
          b: ['lfo', { rateHz: 3 }, { outputOhms: { out: b } }],
          j: ['junction'],
        },
        ['a.out > j.in1', 'b.out > j.in2'],
      );
      expect(list.length).toBe(Math.max(a, b) < 100 ? 1 : 0);
      if (list.length > 0) expect(list[0]!.numbers.ohms).toBeCloseTo(a + b, 9);
    });
  });
  it('a ring modulator bleeds by what is left after its trim, from −60 dB on', () => {
    law([within(0.0002, 0.03), within(-0.03, 0.03)], (bleedA, trimA) => {
      const left = Math.abs(bleedA + trimA);
      fc.pre(left > 1e-5 && Math.abs(db(left) + 60) > 0.1);
      const list = found('bleed', { o: osc, p: osc, r: ['ringMod', { bleedA, trimA }] }, [
        'o.sine > r.a',
        'p.sine > r.b',
      ]);
      if (db(left) < -60) expect(list).toEqual([]);
      else
        expect(
          number(
            list.filter((f) => f.at === 'r.a'),
            'bleedDb',
          ),
        ).toBeCloseTo(db(left), 4);
    });
  });
});

describe('a loop', () => {
  it('runs away from a gain of one on, by its decibels', () => {
    law([within(0.5, 1.9)], (gain2) => {
      fc.pre(Math.abs(gain2 - 1) > 0.001);
      const list = found(
        'runaway',
        { c: ['constant', { volts: 0.01 }], m: ['mixer', { gain2, maxGain: 2 }], o: ['offset'] },
        ['c.out > m.in1', 'o.out > m.in2', 'm.out > o.in'],
      );
      if (gain2 < 1) expect(list).toEqual([]);
      else expect(number(list, 'loopDb')).toBeCloseTo(db(gain2), 4);
    });
  });
});

describe('a lag', () => {
  it('leaves of a triangle what its closed form says, told below 95%', () => {
    law([within(0.05, 1.5), within(2, 8)], (seconds, rateHz) => {
      const [tau, half] = [seconds / 5, 1 / (2 * rateHz)];
      const left = 1 - (2 * tau * Math.log(2 / (1 + Math.exp(-half / tau)))) / half;
      fc.pre(Math.abs(left - 0.95) > 0.005);
      const list = found(
        'lag-short',
        { l: ['lfo', { rateHz }], s: ['slew', { law: 'rc', rise: seconds, fall: seconds }], p: ['parameter'] },
        ['l.out > s.in', 's.out > p.cv'],
      );
      if (left > 0.95) expect(list).toEqual([]);
      else expect(number(list, 'spanRatio')).toBeCloseTo(left, 2);
    });
  });
});
