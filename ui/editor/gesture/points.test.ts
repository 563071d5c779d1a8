import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { GesturePoint } from '@/core';
import { drawnOver, movedPoint, ordered, simplified, withoutPoint } from './points';

const point = fc.record({
  t: fc.double({ min: 0, max: 10, noNaN: true }),
  volts: fc.double({ min: -5, max: 5, noNaN: true }),
});
const rising = (points: readonly GesturePoint[]): boolean => points.every((p, i) => i === 0 || p.t > points[i - 1]!.t);

const valueAt = (points: readonly GesturePoint[], t: number): number => {
  const after = points.findIndex((p) => p.t >= t);
  if (after <= 0) return points[Math.max(0, after)]!.volts;
  const [a, b] = [points[after - 1]!, points[after]!];
  return a.volts + ((b.volts - a.volts) * (t - a.t)) / (b.t - a.t);
};

describe('a hand’s points', () => {
  it('rise in time whatever is drawn over them', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 1 }), fc.array(point, { minLength: 1 }), (old, drawn) => {
        const result = drawnOver(ordered(old), ordered(drawn));
        expect(rising(result)).toBe(true);
        expect(result.length).toBeGreaterThan(0);
      }),
    );
  });
  it('what was drawn takes the place of what was there in that time, and of nothing else', () => {
    const old = [0, 1, 2, 3].map((t) => ({ t, volts: 0 }));
    expect(
      drawnOver(old, [
        { t: 0.5, volts: 5 },
        { t: 2.5, volts: 4 },
      ]),
    ).toEqual([
      { t: 0, volts: 0 },
      { t: 0.5, volts: 5 },
      { t: 2.5, volts: 4 },
      { t: 3, volts: 0 },
    ]);
  });
  it('a straight move needs two; a bent one stays within the tolerance', () => {
    const straight = Array.from({ length: 100 }, (_, i) => ({ t: i / 100, volts: i / 20 }));
    expect(simplified(straight, 0.01)).toHaveLength(2);
    const wave = Array.from({ length: 400 }, (_, i) => ({ t: i / 100, volts: 5 * Math.sin(i / 30) }));
    const few = simplified(wave, 0.05);
    expect(few.length).toBeLessThan(60);
    for (const p of wave) expect(Math.abs(valueAt(few, p.t) - p.volts)).toBeLessThanOrEqual(0.05 + 1e-9);
  });
  it('a point stops at its neighbours, and the last one cannot be taken away', () => {
    const three = [0, 1, 2].map((t) => ({ t, volts: 0 }));
    expect(rising(movedPoint(three, 1, { t: 9, volts: 1 }))).toBe(true);
    expect(rising(movedPoint(three, 1, { t: -9, volts: 1 }))).toBe(true);
    expect(withoutPoint([three[0]!], 0)).toHaveLength(1);
    expect(withoutPoint(three, 1).map((p) => p.t)).toEqual([0, 2]);
  });
});
