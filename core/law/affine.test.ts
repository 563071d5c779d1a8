import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AtomStore } from './builder';
import {
  add,
  affine,
  constant,
  curveRange,
  doubling,
  isZero,
  idOf,
  productRange,
  relation,
  squareRange,
} from './affine';
import type { Atom, Curve, Affine } from './affine';

/** Three sources, each with its range. */
const RANGES = [
  [-5, 5],
  [0, 8],
  [-1, 2],
] as const;

type Law =
  | { readonly is: 'source'; readonly index: number }
  | { readonly is: 'constant'; readonly volts: number }
  | { readonly is: 'scale'; readonly a: Law; readonly k: number; readonly shift: number }
  | { readonly is: 'add' | 'mul' | 'min' | 'max'; readonly a: Law; readonly b: Law }
  | { readonly is: 'clamp'; readonly a: Law; readonly min: number; readonly span: number }
  | { readonly is: 'abs' | 'doubling'; readonly a: Law };

const figure = fc.integer({ min: -8, max: 8 }).map((n) => n / 4);

const { law } = fc.letrec<{ law: Law }>((tie) => ({
  law: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.record({ is: fc.constant('source' as const), index: fc.nat(RANGES.length - 1) }),
    fc.record({ is: fc.constant('constant' as const), volts: figure }),
    fc.record({ is: fc.constant('scale' as const), a: tie('law'), k: figure, shift: figure }),
    fc.record({ is: fc.constantFrom('add' as const, 'mul', 'min', 'max'), a: tie('law'), b: tie('law') }),
    fc.record({
      is: fc.constant('clamp' as const),
      a: tie('law'),
      min: figure,
      span: fc.integer({ min: 0, max: 8 }),
    }),
    fc.record({ is: fc.constantFrom('abs' as const, 'doubling'), a: tie('law') }),
  ),
}));

/** What grows beyond this is no voltage, and its rounding is not looked at. */
const held = (v: number): number => Math.min(20, Math.max(-20, v));

/** The law as a value over the sources' symbols. */
function built(store: AtomStore, l: Law): Affine {
  switch (l.is) {
    case 'source': {
      const [lo, hi] = RANGES[l.index] as readonly [number, number];
      return store.leaf(`s${l.index}`, lo, hi, l.index);
    }
    case 'constant':
      return store.constant(l.volts);
    case 'scale':
      return store.scale(built(store, l.a), l.k, l.shift);
    case 'add':
      return add(built(store, l.a), built(store, l.b));
    case 'mul':
      return store.clamp(store.mul(built(store, l.a), built(store, l.b)), -20, 20);
    case 'min':
      return store.min(built(store, l.a), built(store, l.b));
    case 'max':
      return store.max(built(store, l.a), built(store, l.b));
    case 'clamp':
      return store.clamp(built(store, l.a), l.min, l.min + l.span);
    case 'abs':
      return store.abs(built(store, l.a));
    case 'doubling':
      return store.curve(store.clamp(built(store, l.a), -6, 4), doubling);
  }
}

/** The same law as plain sums at one moment. */
function plain(l: Law, at: readonly number[]): number {
  switch (l.is) {
    case 'source':
      return at[l.index] as number;
    case 'constant':
      return l.volts;
    case 'scale':
      return l.k * plain(l.a, at) + l.shift;
    case 'add':
      return plain(l.a, at) + plain(l.b, at);
    case 'mul':
      return held(plain(l.a, at) * plain(l.b, at));
    case 'min':
      return Math.min(plain(l.a, at), plain(l.b, at));
    case 'max':
      return Math.max(plain(l.a, at), plain(l.b, at));
    case 'clamp':
      return Math.min(l.min + l.span, Math.max(l.min, plain(l.a, at)));
    case 'abs':
      return Math.abs(plain(l.a, at));
    case 'doubling':
      return 2 ** Math.min(4, Math.max(-6, plain(l.a, at)));
  }
}

/** A value at one moment, read from its own atoms. */
const valueOf = (x: Affine, at: readonly number[]): number =>
  x.atoms.reduce((sum, atom, i) => sum + (x.ks[i] as number) * atomAt(atom, at), x.c);

function atomAt(atom: Atom, at: readonly number[]): number {
  switch (atom.op) {
    case 'leaf':
      return at[atom.slot] as number;
    case 'mul':
      return valueOf(atom.a, at) * valueOf(atom.b, at);
    case 'square':
      return valueOf(atom.a, at) ** 2;
    case 'clamp':
      return Math.min(atom.max, Math.max(atom.min, valueOf(atom.a, at)));
    case 'curve':
      return atom.curve.f(valueOf(atom.a, at));
    case 'couple':
      return NaN;
  }
}

const moment = fc.tuple(...RANGES.map(([lo, hi]) => fc.double({ min: lo, max: hi, noNaN: true })));
const near = (a: number, b: number): boolean => Math.abs(a - b) <= 1e-8 * (1 + Math.abs(a) + Math.abs(b));

describe('a law over symbols', () => {
  it('is what plain sums say at every moment, and never leaves its range', () => {
    fc.assert(
      fc.property(law, fc.array(moment, { minLength: 1, maxLength: 6 }), (l, moments) => {
        const x = built(new AtomStore(), l);
        return moments.every((at) => {
          const v = valueOf(x, at);
          const slack = 1e-8 * (1 + Math.abs(v));
          return near(v, plain(l, at)) && v >= x.lo - slack && v <= x.hi + slack;
        });
      }),
      { numRuns: 1500 },
    );
  });
  it('less itself is nothing at all, and the same law made elsewhere is the same value', () => {
    fc.assert(
      fc.property(law, (l) => {
        const [here, there] = [new AtomStore(), new AtomStore()];
        const x = built(here, l);
        return isZero(add(x, built(here, l), -1)) && idOf(x) === idOf(built(there, l));
      }),
    );
  });
  it('of a sum: scale and shift go through, whatever is summed', () => {
    fc.assert(
      fc.property(law, law, figure, moment, (a, b, k, at) => {
        const store = new AtomStore();
        const [x, y] = [built(store, a), built(store, b)];
        const sum = valueOf(add(x, y, k), at);
        return (
          near(sum, valueOf(x, at) + k * valueOf(y, at)) && near(valueOf(affine(x, k, 1), at), k * valueOf(x, at) + 1)
        );
      }),
    );
  });
});

describe('values that hang together', () => {
  const store = new AtomStore();
  const [x, y] = [store.leaf('x', -5, 5), store.leaf('y', 0, 8)];
  it('are known by their scale and shift', () => {
    expect(relation(affine(x, 3, 1), affine(x, 2, -4))).toEqual({ scale: 1.5, shift: 7 });
    expect(relation(x, y)).toBeNull();
    expect(relation(add(x, y), x)).toBeNull();
    expect(relation(constant(1), constant(2))).toBeNull();
  });
  it('multiply to a square, whose lowest value is exact', () => {
    expect(store.mul(x, x)).toMatchObject({ lo: 0, hi: 25 });
    // (x + 1)·x is lowest in the middle between its zeros.
    expect(store.mul(affine(x, 1, 1), x)).toMatchObject({ lo: -0.25, hi: 30 });
    expect(store.mul(x, y)).toMatchObject({ lo: -40, hi: 40 });
  });
  it('couple to nothing where nothing moves, else to their span either way', () => {
    expect(isZero(store.couple(constant(3)))).toBe(true);
    expect(store.couple(y)).toMatchObject({ lo: -8, hi: 8 });
  });
});

describe('ranges', () => {
  const range = fc
    .tuple(fc.double({ min: -9, max: 9, noNaN: true }), fc.double({ min: 0, max: 9, noNaN: true }))
    .map(([lo, span]) => [lo, lo + span] as const);
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  const within = (v: number, [lo, hi]: readonly [number, number]): boolean => v >= lo - 1e-9 && v <= hi + 1e-9;
  it('of products and squares hold every product, and are reached', () => {
    fc.assert(
      fc.property(range, range, share, share, (a, b, s, t) => {
        const [u, v] = [a[0] + s * (a[1] - a[0]), b[0] + t * (b[1] - b[0])];
        const corners = a.flatMap((p) => b.map((q) => p * q));
        const product = productRange(a, b);
        return (
          within(u * v, product) &&
          within(u * u, squareRange(...a)) &&
          product[0] === Math.min(...corners) &&
          product[1] === Math.max(...corners)
        );
      }),
    );
    expect(productRange([0, 0], [-Infinity, Infinity])).toEqual([0, 0]);
    expect(productRange([NaN, 1], [0, 1])).toEqual([-Infinity, Infinity]);
  });
  it('of curves hold every value between kinks', () => {
    const fold: Curve = { key: 'fold', f: (v) => Math.abs(Math.abs(v) - 3), kinks: [-3, 0, 3] };
    fc.assert(
      fc.property(range, share, (r, s) => {
        const v = r[0] + s * (r[1] - r[0]);
        return within(fold.f(v), curveRange(fold, ...r)) && within(2 ** v, curveRange(doubling, ...r));
      }),
    );
  });
});
