import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnsOf, moved, valueAtTime, zoomed } from './view';

describe('the scope’s view', () => {
  const trace = Float32Array.from({ length: 8000 }, (_, k) => (k === 4321 ? 9 : Math.sin(k / 50)));

  it('shows a peak of one sample however many share its pixel', () => {
    for (const columns of [10, 333, 1200]) {
      expect(Math.max(...columnsOf(trace, 8000, { from: 0, to: 1 }, columns).max)).toBe(9);
    }
    expect(Math.max(...columnsOf(trace, 8000, { from: 0.6, to: 1 }, 100).max)).toBeLessThan(1.1);
  });
  it('neighbouring columns join, and beyond the trace there is nothing', () => {
    const { min, max } = columnsOf(trace, 8000, { from: 0, to: 1 }, 100);
    for (let c = 1; c < 100; c++) expect(min[c]! <= max[c - 1]! && max[c]! >= min[c - 1]!).toBe(true);
    expect(columnsOf(trace, 8000, { from: 2, to: 3 }, 4).min.every(Number.isNaN)).toBe(true);
  });
  it('zooming and moving stay inside the window, and keep the moment under the pointer', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(share, share, fc.double({ min: 0.3, max: 3, noNaN: true }), (a, b, factor) => {
        const view = { from: Math.min(a, b) * 8, to: Math.max(a, b) * 8 + 0.1 };
        const inside = moved(view, 0, 8);
        const around = inside.from + 0.25 * (inside.to - inside.from);
        const next = zoomed(inside, around, factor, 8, 8000);
        expect(next.from).toBeGreaterThanOrEqual(0);
        expect(next.to).toBeLessThanOrEqual(8 + 1e-9);
        expect(next.from <= around + 1e-9 && around <= next.to + 1e-9).toBe(true);
      }),
    );
  });
  it('reads the nearest sample', () => {
    expect(valueAtTime(trace, 8000, 4321 / 8000)).toBe(9);
    expect(valueAtTime(trace, 8000, 99)).toBe(trace[7999]);
  });
});
