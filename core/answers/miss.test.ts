import { describe, expect, it } from 'vitest';
import type { Target } from '../document/targets';
import { patchOf } from '../testing/patch';
import { missText } from './miss';
import { predict } from './predict';

const plain = (text: string | undefined): string | undefined =>
  text?.replaceAll('\u00a0', ' ').replaceAll('\u2212', '-');

/** What a filter whose cutoff goes from 200 Hz to 3.2 kHz misses a target by. */
const swept = predict(
  patchOf({ l: ['lfo', { lowVolts: 0, highVolts: 4 }], f: ['filter', { cutoffHz: 200 }] }, ['l.out > f.cutoff']),
  { simulation: false },
).readings.find((r) => r.at === 'f.cutoff')!;
const misses = (target: object): string | undefined =>
  plain(missText({ at: 'f.cutoff', quantity: 'frequency', ...target } as Target, swept)?.says);

describe('how far a reading is from a target', () => {
  it('is in cents at the end of a frequency that is further off', () => {
    // 1200·log2(3200/3000) = 111.7
    expect(misses({ low: 200, high: 3000 })).toBe('112 cents high at the top');
    expect(misses({ low: 400, high: 3000 })).toBe('1200 cents low at the bottom');
    expect(misses({ low: null, high: 3199 })).toBe('1 cent high at the top');
    expect(misses({ low: 200, high: 3199.8 })).toBe('0.1 cents high at the top');
  });
  it('is nothing inside of limits, and what is beyond them outside', () => {
    expect(misses({ want: 'within', low: 100, high: 4000 })).toBeUndefined();
    expect(misses({ want: 'within', low: 100, high: 1600 })).toBe('1200 cents high at the top');
    expect(misses({ want: 'within', low: 400, high: 4000 })).toBe('1200 cents low at the bottom');
  });
  it('is a width in octaves, then its centre', () => {
    expect(misses({ want: 'span', span: 3, centre: null })).toBe('1.00 oct too wide');
    expect(misses({ want: 'span', span: 4, centre: 400 })).toBe('Centre 1200 cents too high');
    expect(misses({ want: 'span', span: 4, centre: 800 })).toBeUndefined();
  });
  it('is in dB of a gain, and says where it falls silent or never does', () => {
    const at = (low: number, high: number) =>
      predict(patchOf({ l: ['lfo', { lowVolts: low, highVolts: high }], a: ['vca'] }, ['l.out > a.cv']), {
        simulation: false,
      }).readings.find((r) => r.at === 'a.cv')!;
    const gain = (target: object, low: number, high: number) =>
      plain(missText({ at: 'a.cv', quantity: 'gain', ...target } as Target, at(low, high))?.says);
    expect(gain({ low: -12, high: 0 }, 2.5, 5)).toBe('6.0 dB high at the bottom');
    expect(gain({ low: -12, high: 0 }, -1, 5)).toBe('Silent at the bottom');
    expect(gain({ low: 'silent', high: 0 }, 2.5, 5)).toMatch(/^Never silent/);
  });
  it('is told by figures alone', () => {
    expect(missText({ at: 'f.cutoff', want: 'like', shape: 'sine' }, swept)).toBeNull();
    expect(missText({ at: 'f.cutoff', quantity: 'volts', low: 0, high: 1 }, swept)).toBeNull();
  });
});
