import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boundedStep, descend } from './least';

const figure = fc.double({ min: -3, max: 3, noNaN: true });
const columns = (n: number, m: number) =>
  fc.array(fc.array(figure, { minLength: m, maxLength: m }), { minLength: n, maxLength: n });

const lossOf = (
  j: readonly (readonly number[])[],
  r: readonly number[],
  d: ArrayLike<number>,
  damping: number,
): number => {
  const after = r.map((v, k) => v + j.reduce((sum, c, i) => sum + (c[k] ?? 0) * (d[i] ?? 0), 0));
  return after.reduce((sum, v) => sum + v * v, 0) + damping * Array.from(d).reduce((sum, v) => sum + v * v, 0);
};

describe('the bounded step', () => {
  it('stays within its limits, and no small move within them is better', () => {
    fc.assert(
      fc.property(columns(3, 4), fc.array(figure, { minLength: 4, maxLength: 4 }), (j, r) => {
        const [low, high] = [
          [-0.5, -1, -0.2],
          [0.5, 0.1, 2],
        ];
        const damping = 1e-3;
        const d = boundedStep(
          j.map((c) => Float64Array.from(c)),
          Float64Array.from(r),
          low,
          high,
          damping,
        );
        const best = lossOf(j, r, d, damping);
        d.forEach((v, i) => {
          expect(v).toBeGreaterThanOrEqual((low[i] ?? 0) - 1e-12);
          expect(v).toBeLessThanOrEqual((high[i] ?? 0) + 1e-12);
          for (const by of [-1e-3, 1e-3]) {
            const moved = Float64Array.from(d);
            moved[i] = Math.min(high[i] ?? 0, Math.max(low[i] ?? 0, v + by));
            expect(lossOf(j, r, moved, damping)).toBeGreaterThanOrEqual(best - 1e-6);
          }
        });
      }),
      { numRuns: 300 },
    );
  });
  it('is the solution of a square system where the limits are far', () => {
    const d = boundedStep([Float64Array.of(2, 0), Float64Array.of(1, 3)], Float64Array.of(-5, -6), [-9, -9], [9, 9], 0);
    expect([...d]).toEqual([expect.closeTo(1.5, 12), expect.closeTo(2, 12)]);
  });
});

describe('descending', () => {
  const options = { free: [0, 1], low: 0, high: 1, step: 1e-4, rounds: 30, enough: 1e-24 };
  it('solves what is straight to the last digits', () => {
    const f = (x: Float64Array) =>
      Float64Array.of(4 * (x[0] ?? 0) + (x[1] ?? 0) - 2, (x[0] ?? 0) - 2 * (x[1] ?? 0) + 1);
    const { x, cost } = descend(f, Float64Array.of(0.5, 0.5), options);
    expect([...x]).toEqual([expect.closeTo(1 / 3, 9), expect.closeTo(2 / 3, 9)]);
    expect(cost).toBeLessThan(1e-18);
  });
  it('solves a product, and stops at a limit where there is none', () => {
    const product = (x: Float64Array) => Float64Array.of((x[0] ?? 0) * (x[1] ?? 0) - 0.25, (x[0] ?? 0) - (x[1] ?? 0));
    expect([...descend(product, Float64Array.of(0.9, 0.4), options).x]).toEqual([
      expect.closeTo(0.5, 6),
      expect.closeTo(0.5, 6),
    ]);
    const far = (x: Float64Array) => Float64Array.of((x[0] ?? 0) - 3, (x[1] ?? 0) - 0.5);
    expect([...descend(far, Float64Array.of(0.2, 0.2), options).x]).toEqual([1, expect.closeTo(0.5, 9)]);
  });
});
