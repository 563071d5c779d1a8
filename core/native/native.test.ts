import { spawnSync } from 'node:child_process';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Arena } from './native';
import type { Kernels, Pass } from './kernels';
import { Phase, withinCycle } from '../kinds/phase';

/** What a kernel makes of one list of numbers. */
function over(values: readonly number[], make: (k: Kernels, x: Float64Array, out: Float64Array) => Pass): number[] {
  return Arena.with(4 * values.length + 100, (arena) => {
    const [x, out] = [arena.take(values.length), arena.take(values.length)];
    x.set(values);
    make(arena.kernels, x, out)(0, values.length);
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
        const got = over(xs, (k, x, out) => k.powers(x, out));
        xs.forEach((x, i) => expect(Math.abs((got[i] as number) / 2 ** x - 1)).toBeLessThan(1e-15));
      }),
      { numRuns: 2000 },
    );
    expect(over([0, 1, -3, 10], (k, x, out) => k.powers(x, out))).toEqual([1, 2, 0.125, 1024]);
  });

  it('give sines of any cycle, exact at its quarters', () => {
    fc.assert(
      fc.property(doubles(0, 1000), (xs) => {
        const got = over(xs, (k, x, out) => k.wave('sine', x, { mid: 1, half: 5 }, out));
        xs.forEach((x, i) => {
          // A phase within 1e-9 of an edge is on it.
          const phase = Math.max(0, x - Math.floor(x + 1e-9));
          expect(got[i]).toBeCloseTo(1 + 5 * Math.sin(2 * Math.PI * phase), 11);
        });
      }),
      { numRuns: 2000 },
    );
    expect(over([0, 0.25, 0.5, 0.75, 1, 7.25], (k, x, out) => k.wave('sine', x, { mid: 0, half: 5 }, out))).toEqual([
      0, 5, 0, -5, 0, 5,
    ]);
  });

  it('follow a frequency that moves as a phase counted sample by sample, in blocks of any size', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(0, 0.5, 110, 440.25, 20_000), { minLength: 2, maxLength: 40 }),
        fc.integer({ min: 1, max: 40 }),
        fc.double({ min: 0, max: 0.99, noNaN: true }),
        (hertz, cut, start) => {
          const [one, other] = [new Phase(48_000, start), new Phase(48_000, start)];
          const got = Arena.with(4 * hertz.length + 100, (arena) => {
            const [x, out] = [arena.take(hertz.length), arena.take(hertz.length)];
            x.set(hertz);
            const sweep = one.sweeping(arena.kernels, x, arena.take(3), out);
            for (let from = 0; from < hertz.length; from += cut) sweep(from, Math.min(hertz.length, from + cut), 1000);
            return [...out];
          });
          const phases = hertz.map((hz, i) => withinCycle(other.at(1000 + i, hz)));
          phases.forEach((phase, i) => expect(Math.abs(phase - (got[i] as number))).toBeLessThan(1e-11));
          // What goes on after it goes on from where it is.
          expect(withinCycle(one.at(2000, 3))).toBeCloseTo(withinCycle(other.at(2000, 3)), 10);
        },
      ),
    );
  });

  it('give the tangent of a filter’s cutoff, up to just below half the sample rate', () => {
    fc.assert(
      fc.property(doubles(-8, 8), (octaves) => {
        const got = over(octaves, (k, x, out) =>
          k.cutoffs({ a: x, ka: 1, b: x, kb: 0, c: x, hertz: 300, lowest: 16, highest: 23_520 }, 48_000, out),
        );
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
      arena.kernels.saturate(x, 12, counts)(0, 5, 0.5);
      expect([...x]).toEqual([6, -6, -6, 6, 6, 99]);
      expect([...counts]).toEqual([1, 2]);
    });
  });

  it('count what lies outside a window', () => {
    Arena.with(100, (arena) => {
      const x = arena.take(5);
      const counts = arena.take(3);
      x.set([-1, 0, 2, 5, 6]);
      arena.kernels.countOutside(x, 0, 5, counts)(0, 5);
      expect([...counts]).toEqual([1, 2, 1]);
    });
  });
});

/** Every loop that fills a buffer, of inputs `x`, `y` and `z`. */
const filling: Readonly<Record<string, (k: Kernels, out: Float64Array, ...x: Float64Array[]) => Pass>> = {
  fill: (k, out) => k.fill(3, out),
  scaled: (k, out, x) => k.scaled(x!, 2, 1, out),
  sumOfTwo: (k, out, x, y) => k.sumOfTwo(x!, 2, y!, 3, 1, out),
  addScaled: (k, out, x) => k.addScaled(x!, 2, out),
  products: (k, out, x, y) => k.products(x!, y!, out),
  powers: (k, out, x) => k.powers(x!, out),
  clamped: (k, out, x) => k.clamped(x!, -1, 1, out),
  phases: (k, out) => (from, to) => k.phases(out, 8000)(from, to, 0, 3, from),
  withinCycles: (k, out, x) => k.withinCycles(x!, out),
  sine: (k, out, x) => k.wave('sine', x!, { mid: 0, half: 5 }, out),
  triangle: (k, out, x) => k.wave('triangle', x!, { mid: 0, half: 5 }, out),
  ramp: (k, out, x) => k.wave('ramp', x!, { mid: 0, half: 5 }, out),
  square: (k, out, x) => k.square(x!, 0.3, { mid: 0, half: 5 }, out),
  saw: (k, out, x, y) => k.saw(x!, y!, { mid: 0, half: 5 }, out),
  pulse: (k, out, x, y, z) => k.pulse(x!, y!, { cv: z!, amount: 0.2, atZero: 0.5 }, { mid: 0, half: 5 }, out),
  cutoffs: (k, out, x, y, z) =>
    k.cutoffs({ a: x!, ka: 1, b: y!, kb: 1, c: z!, hertz: 300, lowest: 16, highest: 3000 }, 8000, out),
  stateVariable: (k, out, x, y, z) =>
    k.stateVariable(x!, y!, 0.5, counts, { lowpass: out, bandpass: z!, highpass: z! }),
  singing: (k, out, x, y, z) => k.stateVariable(x!, y!, -0.2, counts, { lowpass: out, bandpass: z!, highpass: z! }),
  saturate: (k, out) => {
    const hold = k.saturate(out, 2, counts);
    return (from, to) => hold(from, to, 0.5);
  },
  lineSlew: (k, out, x, y, z) => {
    const lag = k.slew('line', x!, y!, z!, out);
    return (from, to) => void lag(from, to, 0);
  },
  shareSlew: (k, out, x, y, z) => {
    const lag = k.slew('share', x!, y!, z!, out);
    return (from, to) => void lag(from, to, 0);
  },
};
let counts: Float64Array;

describe('compiled loops', () => {
  const SIZE = 9;
  const spans = fc.tuple(fc.nat(SIZE), fc.nat(SIZE)).map(([a, b]) => [Math.min(a, b), Math.max(a, b)] as const);
  it.each(Object.entries(filling))('%s writes the samples that it is asked for, and no other', (_, make) => {
    fc.assert(
      fc.property(spans, fc.infiniteStream(fc.double({ min: 0.01, max: 3, noNaN: true })), ([from, to], values) => {
        Arena.with(200, (arena) => {
          counts = arena.take(4);
          const buffers = [0, 1, 2].map(() => arena.take(SIZE).map(() => values.next().value));
          const [x, y, z] = [0, 1, 2].map(() => arena.take(SIZE)) as [Float64Array, Float64Array, Float64Array];
          [x, y, z].forEach((b, i) => b.set(buffers[i]!));
          const out = arena.take(SIZE);
          const behind = arena.take(3);
          const marks = Array.from({ length: SIZE }, () => 5);
          out.set(marks);
          behind.fill(7);
          const spare = new Float64Array(out.buffer, out.byteOffset, SIZE + 1).subarray(SIZE).fill(9);
          make(arena.kernels, out, x, y, z)(from, to);
          const one = [...out];
          expect([...one.slice(0, from), ...one.slice(to)]).toEqual([...marks.slice(0, from), ...marks.slice(to)]);
          expect([...behind]).toEqual([7, 7, 7]);
          // The spare slot of the buffer itself is left alone too.
          expect([...spare]).toEqual([9]);
        });
      }),
    );
  });
  it.each(Object.entries(filling))('%s refuses samples beyond its buffers, and buffers of elsewhere', (_, make) => {
    Arena.with(200, (arena) => {
      counts = arena.take(4);
      const [x, y, z, out] = [0, 1, 2, 3].map(() => arena.take(SIZE)) as [
        Float64Array,
        Float64Array,
        Float64Array,
        Float64Array,
      ];
      const pass = make(arena.kernels, out, x, y, z);
      expect(() => pass(0, SIZE)).not.toThrow();
      for (const [from, to] of [
        [0, SIZE + 1],
        [-1, 3],
        [5, 4],
        [NaN, 4],
      ] as const)
        expect(() => pass(from, to), `${from} to ${to}`).toThrow(RangeError);
      const short = arena.take(SIZE - 1);
      expect(() => make(arena.kernels, short, x, y, z)(0, SIZE)).toThrow(RangeError);
      expect(() => make(arena.kernels, new Float64Array(SIZE), x, y, z)(0, 1)).toThrow(TypeError);
    });
  });
  it('keep their counts in room that is large enough, or not at all', () => {
    Arena.with(200, (arena) => {
      const [x, one] = [arena.take(4), arena.take(1)];
      expect(() => arena.kernels.extremes(x, one)).toThrow(RangeError);
      expect(() => arena.kernels.extremesAndSums(x, arena.take(3))).toThrow(RangeError);
      expect(() => arena.kernels.countOutside(x, 0, 1, arena.take(2))).toThrow(RangeError);
      expect(() => arena.kernels.saturate(x, 12, one)).toThrow(RangeError);
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
