import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { normal, stream } from '../kinds/random';
import { layOver } from './overlay';

/** A voltage that never repeats, smooth enough to be resampled. */
function wander(samples: number, seed: number): Float64Array {
  const random = stream(seed);
  let [fast, slow] = [0, 0];
  return Float64Array.from({ length: samples }, () => {
    fast += 0.2 * (normal(random) - fast);
    slow += 0.05 * (fast - slow);
    return 20 * slow;
  });
}

describe('a recording over a prediction', () => {
  it('is found to the sample, with its scale and offset', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -600, max: 600 }),
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        fc.boolean(),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.integer({ min: 1, max: 1000 }),
        (late, size, turned, offset, seed) => {
          const all = wander(4000, seed);
          const scale = turned ? -size : size;
          const predicted = all.subarray(700, 3000);
          const recorded = all.subarray(700 + late, 2900 + late).map((v) => (v - offset) / scale);
          const found = layOver({ volts: predicted, sampleRate: 1000 }, { volts: recorded, sampleRate: 1000 })!;
          expect(found.shift).toBe(late);
          expect(found.scale).toBeCloseTo(scale, 6);
          expect(found.offset).toBeCloseTo(offset, 6);
          expect(found.residualVolts).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('tells what is left of noise, in volts and percent, where both are in volts', () => {
    const predicted = wander(6000, 3);
    const random = stream(9);
    const recorded = predicted.subarray(200).map((v) => v + 0.05 * normal(random));
    const found = layOver(
      { volts: predicted, sampleRate: 1000 },
      { volts: recorded, sampleRate: 1000 },
      { fixed: true },
    )!;
    expect([found.shift, found.scale, found.offset]).toEqual([200, 1, 0]);
    expect(found.residualVolts).toBeCloseTo(0.05, 2);
    expect(found.predicted.length).toBe(5800);
  });

  it('of what repeats is laid over the nearest turn', () => {
    const wave = (samples: number, from: number): Float64Array =>
      Float64Array.from({ length: samples }, (_, k) => Math.sin((2 * Math.PI * (k + from)) / 100));
    const found = layOver({ volts: wave(2000, 0), sampleRate: 1000 }, { volts: wave(1000, 30), sampleRate: 1000 })!;
    expect(found.shift).toBe(30);
  });

  it('at another rate is brought to the prediction’s', () => {
    const slow = (rate: number, seconds: number): Float64Array =>
      Float64Array.from({ length: rate * seconds }, (_, k) => Math.sin((2 * Math.PI * k) / rate) + k / rate);
    const found = layOver({ volts: slow(1000, 4), sampleRate: 1000 }, { volts: slow(4410, 3), sampleRate: 4410 })!;
    expect(found.shift).toBe(0);
    expect(found.residualVolts).toBeLessThan(1e-4);
    expect(layOver({ volts: [], sampleRate: 1 }, { volts: [1, 2], sampleRate: 1 })).toBeNull();
  });
});
