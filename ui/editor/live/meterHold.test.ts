import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MeterHold } from './meterHold';

const told = (peak: number, samples: number, more: object = {}) => ({
  peak,
  rms: peak / 2,
  reduction: 0,
  heldBack: 0,
  samples,
  ...more,
});

describe('a meter', () => {
  it('reads twelve equal hits as twelve equal peaks, wherever they fall between two looks', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 7 }), (offset) => {
        const meter = new MeterHold();
        const peaks: number[] = [];
        // Sixty reports a second, a hit every fifteen, a look every eight.
        for (let n = 0; n < 184; n++) {
          meter.add(told(n < 180 && (n + offset) % 15 === 0 ? 0.8 : 0.01, 800 * (n + 1)), n * 16);
          if (n % 8 === 7) peaks.push(meter.take(n * 16).peak);
        }
        expect(peaks.filter((p) => p === 0.8)).toHaveLength(12);
      }),
    );
  });
  it('holds a peak for two seconds, and forgets it when asked', () => {
    const meter = new MeterHold();
    meter.add(told(0.9, 800), 0);
    meter.add(told(0.1, 1600), 16);
    expect(meter.take(1900).held).toBe(0.9);
    meter.add(told(0.2, 2400), 2100);
    expect(meter.take(2100).held).toBe(0.2);
    meter.reset();
    meter.add(told(0.05, 3200), 2120);
    expect(meter.take(2120).held).toBe(0.05);
  });
  it('tells the RMS of the last 300 ms, and the most that limiter and guard took', () => {
    const meter = new MeterHold();
    for (let n = 0; n < 60; n++)
      meter.add(told(n < 40 ? 1 : 0.2, 800 * (n + 1), { reduction: n === 50 ? 6 : 0 }), n * 16);
    const shown = meter.take(59 * 16);
    expect(shown.rms).toBeCloseTo(0.1, 9);
    expect(shown.reduction).toBe(6);
    expect(meter.take(960).reduction).toBe(0);
  });
});
