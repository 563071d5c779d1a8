import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomNet, searched } from '../testing/net';
import { AtomStore } from '../law/builder';
import { affine, constant, doubling, slopeRange } from '../law/affine';
import type { Curve, Affine } from '../law/affine';
import { Cone } from './cone';
import { Parts } from './parts';
import { reduce } from './reduce';
import { Slopes } from './slopes';
import { Tightener, tighten } from './tighten';

const between = (range: readonly [number, number], lo: number, hi: number): void => {
  expect(range[0]).toBeCloseTo(lo, 9);
  expect(range[1]).toBeCloseTo(hi, 9);
};

describe('closed forms', () => {
  const store = new AtomStore();
  const [x, y, z] = ['x', 'y', 'z'].map((name) => store.leaf(name, -2, 3)) as [Affine, Affine, Affine];
  const half = (s: Affine): Affine => store.clamp(affine(s, 0.1, 0.5), 0, 1);

  it.each<[string, Affine, number, number]>([
    ['a product of two', store.mul(x, y), -6, 9],
    ['a product of sums that share nothing', store.mul(store.sum([x, 1], [y, 1]), z), -12, 18],
    ['x·y − y is (x − 1)·y', store.sum([store.mul(x, y), 1], [y, -1]), -9, 6],
    ['2^(x·y)', store.curve(store.mul(x, y), doubling), 2 ** -6, 2 ** 9],
    ['the greater of two', store.max(x, y), -2, 3],
    [
      'a crossfade from one to another stays between them',
      store.sum([store.mul(x, half(z)), 1], [store.mul(y, affine(half(z), -1, 1)), 1]),
      -2,
      3,
    ],
    [
      'a crossfade from a signal to itself is that signal',
      store.sum([store.mul(x, half(z)), 1], [store.mul(x, affine(half(z), -1, 1)), 1]),
      -2,
      3,
    ],
  ])('%s', (_, value, lo, hi) => {
    const range = tighten(value);
    expect(range[0]).toBeLessThanOrEqual(lo + 1e-12);
    expect(range[1]).toBeGreaterThanOrEqual(hi - 1e-12);
    between(range, lo, hi);
  });
  it('the greater of a signal and its own opposite, within 0.5% of its span', () => {
    const [lo, hi] = tighten(store.max(x, affine(x, -1)));
    expect(lo).toBeLessThanOrEqual(0);
    expect(lo).toBeGreaterThan(-0.005 * 3);
    expect(hi).toBeCloseTo(3, 9);
  });
  it('huge terms that cancel keep room for their roundings', () => {
    const [lo, hi] = tighten(
      store.sum([store.mul(x, y), 5e16], [constant(-5e16), 1], [store.mul(y, x), -5e16], [z, 1]),
    );
    expect([lo, hi]).toEqual([-5e16 - 2, -5e16 + 3]);
    const near = tighten(affine(store.curve(x, { ...doubling, key: 'steep', f: () => 1 / 3 }), 3e16, -1e16));
    expect(near[0]).toBeLessThan(-2);
    expect(near[1]).toBeGreaterThan(2);
  });
});

describe('random nets over up to six sources', () => {
  it.each(Array.from({ length: 20 }, (_, i) => 100 * i))(
    'from %i: sound, and within 0.5%% of what a search finds',
    (from) => {
      for (let seed = from; seed < from + 15; seed++) {
        const net = randomNet(new AtomStore(), seed);
        if (net.atoms.length === 0) continue;
        const [lo, hi] = tighten(net);
        const [least, most] = searched(net, seed, 10_000);
        expect(lo).toBeLessThanOrEqual(least + 1e-9);
        expect(hi).toBeGreaterThanOrEqual(most - 1e-9);
        expect(hi - lo).toBeLessThanOrEqual(1.005 * (most - least) + 0.005 * 20);
      }
    },
  );
  it('the answer does not depend on what was asked before', () => {
    const store = new AtomStore();
    const nets = Array.from({ length: 40 }, (_, seed) => randomNet(store, seed));
    const one = new Tightener();
    nets.toReversed().forEach((net) => one.range(net));
    for (const net of nets) expect(one.range(net)).toEqual(tighten(net));
  });
  it('a coarse answer contains the close one', () => {
    for (let seed = 0; seed < 200; seed++) {
      const net = randomNet(new AtomStore(), seed);
      const one = new Tightener();
      const [[lo, hi], [from, to]] = [one.coarse(net), one.range(net)];
      const give = 0.002 * (to - from) + 1e-9;
      expect(lo).toBeLessThanOrEqual(from + give);
      expect(hi).toBeGreaterThanOrEqual(to - give);
    }
  });
});

describe('parts', () => {
  const store = new AtomStore();
  const [x, y, z] = ['x', 'y', 'z'].map((name) => store.leaf(name, 0, 1)) as [Affine, Affine, Affine];
  const product = store.mul(x, y);
  const bent = store.clamp(product, 0, 0.5);

  it('is closed where no source inside is seen outside', () => {
    const alone = new Parts(store.sum([bent, 1], [z, 1]));
    expect([bent, product].map((p) => alone.closed(p.atoms[0]!))).toEqual([true, true]);
    const seen = new Parts(store.sum([bent, 1], [x, 1]));
    expect([bent, product].map((p) => seen.closed(p.atoms[0]!))).toEqual([false, false]);
  });
  it('a source that two places use is closed, but not apart', () => {
    const parts = new Parts(store.sum([store.clamp(x, 0.1, 0.5), 1], [x, 1]));
    expect([parts.closed(x.atoms[0]!), parts.apart(x.atoms[0]!)]).toEqual([true, false]);
  });
  it('one source stands for a closed part, and for those that go in one proportion', () => {
    const both = store.sum([x, 1], [y, 2]);
    const value = store.sum([store.clamp(both, 0, 1), 1], [store.mul(z, both), 1]);
    const fewer = new Cone(reduce(value, new Parts(value), () => null));
    expect(fewer.n).toBe(2);
    // Both in the measure of whichever comes first.
    expect([
      [1, 3],
      [1, 1.5],
    ]).toContainEqual([...fewer.high].sort());
    const whole = store.sum([store.mul(bent, z), 1], [bent, 1]);
    const known = new Cone(
      reduce(whole, new Parts(whole), (part) => ('op' in part && part.op === 'clamp' ? [0, 0.5] : null)),
    );
    expect([known.n, [...known.high].sort()]).toEqual([2, [0.5, 1]]);
  });
});

describe('slopes', () => {
  it('a value never falls where its slope is said to be upward, nor rises where downward', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 5000 }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 18, maxLength: 18 }),
        (seed, at) => {
          const net = randomNet(new AtomStore(), seed);
          const cone = new Cone(net);
          const place = (i: number, share: number): number => cone.low[i]! + share * (cone.high[i]! - cone.low[i]!);
          const box = Array.from({ length: cone.n }, (_, i) =>
            [place(i, at[2 * i]!), place(i, at[2 * i + 1]!)].sort((a, b) => a - b),
          );
          cone.evaluate(
            Float64Array.from(box, (b) => b[0]!),
            Float64Array.from(box, (b) => b[1]!),
          );
          const slopes = new Slopes(cone);
          slopes.gather();
          const point = Float64Array.from(box, ([lo, hi], i) => lo! + at[12 + i]! * (hi! - lo!));
          for (let i = 0; i < cone.n; i++) {
            const [low, high] = [point.slice(), point.slice()];
            low[i] = box[i]![0]!;
            high[i] = box[i]![1]!;
            const rise = cone.at(high) - cone.at(low);
            const sign = slopes.sign(cone.rowOf(i));
            expect(sign * rise).toBeGreaterThanOrEqual(-1e-9);
          }
        },
      ),
      { numRuns: 2000 },
    );
  });
  it('of a curve with kinks: those of its pieces', () => {
    const roof: Curve = { key: 'roof', f: (v) => (v < 1 ? 2 * v : 3 - v), kinks: [1] };
    expect([slopeRange(roof, -1, 0.5), slopeRange(roof, 1, 3), slopeRange(roof, 0, 2)]).toEqual([
      [2, 2],
      [-1, -1],
      [-1, 2],
    ]);
  });
});
