import { spawnSync } from 'node:child_process';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Arena } from './native';
import type { Kernels } from './native';

/** What a kernel makes of one list of numbers. */
function over(values: readonly number[], call: (k: Kernels, x: number, out: number, n: number) => void): number[] {
  return Arena.with(4 * values.length + 100, (arena) => {
    const [x, out] = [arena.take(values.length), arena.take(values.length)];
    x.set(values);
    call(arena.kernels, x.byteOffset, out.byteOffset, values.length);
    return [...out];
  });
}

const doubles = (min: number, max: number) =>
  fc.array(fc.double({ min, max, noNaN: true }), { minLength: 1, maxLength: 9 });

describe('kernels', () => {
  it('are what their source compiles to', () => {
    const { status, stderr } = spawnSync(process.execPath, ['scripts/kernels.mjs', '--check'], { encoding: 'utf8' });
    expect(stderr).toBe('');
    expect(status).toBe(0);
  });

  it('give powers of two within 4 units of the last place', () => {
    fc.assert(
      fc.property(doubles(-1020, 1020), (xs) => {
        const got = over(xs, (k, x, out, n) => k.powers(x, out, n));
        xs.forEach((x, i) => expect(Math.abs((got[i] as number) / 2 ** x - 1)).toBeLessThan(1e-15));
      }),
      { numRuns: 2000 },
    );
    expect(over([0, 1, -3, 10], (k, x, out, n) => k.powers(x, out, n))).toEqual([1, 2, 0.125, 1024]);
  });

  it('give sines of any cycle, exact at its quarters', () => {
    fc.assert(
      fc.property(doubles(0, 1000), (xs) => {
        const got = over(xs, (k, x, out, n) => k.sine(x, 0, 1, 5, out, n));
        xs.forEach((x, i) => {
          // A phase within 1e-9 of an edge is on it.
          const phase = Math.max(0, x - Math.floor(x + 1e-9));
          expect(got[i]).toBeCloseTo(1 + 5 * Math.sin(2 * Math.PI * phase), 11);
        });
      }),
      { numRuns: 2000 },
    );
    expect(over([0, 0.25, 0.5, 0.75, 1, 7.25], (k, x, out, n) => k.sine(x, 0, 0, 5, out, n))).toEqual([
      0, 5, 0, -5, 0, 5,
    ]);
  });

  it('give the tangent of a filter’s cutoff, up to just below half the sample rate', () => {
    fc.assert(
      fc.property(doubles(-8, 8), (octaves) => {
        const got = over(octaves, (k, x, out, n) => k.cutoffs(x, 1, x, 0, x, 300, 16, 23_520, 1 / 96_000, out, n));
        octaves.forEach((v, i) => {
          // The third input counts once more.
          const hz = Math.min(23_520, Math.max(16, 300 * 2 ** (2 * v)));
          expect((got[i] as number) / Math.tan((Math.PI * hz) / 48_000)).toBeCloseTo(1, 12);
        });
      }),
      { numRuns: 2000 },
    );
  });

  it('hold at the rails, count what is beyond, and leave a neighbour alone', () => {
    Arena.with(100, (arena) => {
      const x = arena.take(6);
      const counts = arena.take(2);
      x.set([13, -12, -14, 12, 12.5, 99]);
      arena.kernels.saturate(x.byteOffset, 5, 12, 0.5, counts.byteOffset);
      expect([...x]).toEqual([6, -6, -6, 6, 6, 99]);
      expect([...counts]).toEqual([1, 2]);
    });
  });

  it('count what lies outside a window', () => {
    Arena.with(100, (arena) => {
      const x = arena.take(5);
      const counts = arena.take(3);
      x.set([-1, 0, 2, 5, 6]);
      arena.kernels.countOutside(x.byteOffset, 5, 0, 5, counts.byteOffset);
      expect([...counts]).toEqual([1, 2, 1]);
    });
  });
});

describe('the arena', () => {
  it('gives zeros that nobody else has, also within another’s use', () => {
    Arena.with(100, (outer) => {
      const mine = outer.take(4).fill(7);
      Arena.with(100, (inner) => expect([...inner.take(4)]).toEqual([0, 0, 0, 0]));
      expect([...mine]).toEqual([7, 7, 7, 7]);
    });
    Arena.with(100, (again) => expect([...again.take(4)]).toEqual([0, 0, 0, 0]));
  });
  it('says when it is full instead of handing out what is not there', () => {
    Arena.with(100, (arena) => expect(() => arena.take(100_000_000)).toThrow('full'));
  });
});
