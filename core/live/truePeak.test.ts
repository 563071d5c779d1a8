import fc from 'fast-check';
import FFT from 'fft.js';
import { describe, expect, it } from 'vitest';
import { stream } from '../kinds/random';
import { gainOf } from '../units/ratios';
import { Limiter } from './limiter';
import { CEILING_DB } from './listening';
import { REACH, TruePeak } from './truePeak';

const RATE = 48_000;
const COUNT = 4096;
const OVER = 16;
const ceiling = gainOf(CEILING_DB);
const db = (x: number): number => 20 * Math.log10(x);

/** What a converter passes: all up to 20 kHz, nothing from half the rate on, Hz. */
const PASSED = 20_000;
function passed(hz: number): number {
  if (hz <= PASSED) return 1;
  return 0.5 + 0.5 * Math.cos((Math.PI * (hz - PASSED)) / (RATE / 2 - PASSED));
}

/** The greatest voltage behind a converter, of samples that begin and end in silence: by their spectrum, padded. */
function convertedPeak(samples: Float32Array): number {
  const small = new FFT(COUNT);
  const spectrum = small.createComplexArray();
  small.realTransform(spectrum, [...samples]);
  const large = new FFT(COUNT * OVER);
  const padded = large.createComplexArray().fill(0);
  for (let k = 0; k < COUNT; k++) padded[k] = OVER * passed((Math.floor(k / 2) * RATE) / COUNT) * spectrum[k]!;
  large.completeSpectrum(padded);
  const out = large.createComplexArray();
  large.inverseTransform(out, padded);
  let most = 0;
  for (let i = 0; i < COUNT * OVER; i++) most = Math.max(most, Math.abs(out[2 * i]!));
  return most;
}

/** A signal within silence, so that it has a whole spectrum of its own. */
const framed = (x: (n: number) => number): Float32Array =>
  Float32Array.from({ length: COUNT }, (_, n) => (n < 300 || n > COUNT - 600 ? 0 : x(n)));

describe('a true peak', () => {
  it('of a sine at a quarter of the rate, sampled beside its peaks, is its amplitude: 3 dB over its samples', () => {
    const meter = new TruePeak(0);
    let [sample, peak] = [0, 0];
    for (let n = 0; n < 2000; n++) {
      const x = Math.sin((Math.PI / 2) * n + Math.PI / 4) * Math.min(1, n / 500);
      sample = Math.max(sample, Math.abs(x));
      peak = Math.max(peak, meter.next(x));
    }
    expect(db(sample)).toBeCloseTo(-3.01, 2);
    expect(db(peak)).toBeCloseTo(0, 1);
  });

  it('of any sine up to 20 kHz is its amplitude within 0.2 dB, whatever its phase', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 20_000, noNaN: true }),
        fc.double({ min: 0, max: 7, noNaN: true }),
        (hz, phase) => {
          const meter = new TruePeak(0);
          let peak = 0;
          for (let n = 0; n < 4000; n++) {
            const found = meter.next(Math.sin((2 * Math.PI * hz * n) / RATE + phase));
            // What begins at once is no sine.
            if (n > 4 * REACH) peak = Math.max(peak, found);
          }
          return Math.abs(db(peak)) < 0.2 || hz < 40;
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('the limiter', () => {
  const worst: readonly (readonly [name: string, x: (n: number) => number])[] = [
    ['a square of 7 kHz', (n) => (Math.sin((2 * Math.PI * 7000 * n) / RATE) > 0 ? 10 : -10)],
    ['a sine at a quarter of the rate, beside its peaks', (n) => 10 * Math.sin((Math.PI / 2) * n + Math.PI / 4)],
    ['noise of two values', ((random) => () => (random() < 0.5 ? 10 : -10))(stream(3))],
    [
      'white noise',
      (
        (random) => () =>
          20 * random() - 10
      )(stream(4)),
    ],
    ['alternate samples, turned over in the midst', (n) => (n % 2 === 0 ? 10 : -10) * (n > 2000 ? -1 : 1)],
    ['bursts', (n) => (n % 700 < 40 ? 40 * Math.sin(n) : 0.1 * Math.sin(n / 9))],
    ['a pulse', (n) => (n === 1500 ? 100 : 0)],
  ];
  it.each(worst)('holds %s under −1 dB true peak', (_, x) => {
    const limiter = new Limiter(RATE, ceiling);
    const [left, right] = [framed(x), framed((n) => x(n + 1))];
    expect(convertedPeak(left)).toBeGreaterThan(1);
    limiter.process(left, right, COUNT);
    expect(db(convertedPeak(left))).toBeLessThanOrEqual(-1);
    expect(db(convertedPeak(right))).toBeLessThanOrEqual(-1);
  });
});
