import { Hash } from './hash';

/**
 * A law is written once, as a small expression over voltages, and read three ways: as numbers (closed forms, solver),
 * as block operations (simulation) and as affine forms over the sources' symbols (bounds).
 *
 * Every value is a `Affine`: a constant plus a weighted sum of atoms. Linear stages therefore collapse and cancel by
 * construction (a signal minus itself is the constant 0), and only what is truly non-linear becomes an atom.
 */

export type Range = readonly [low: number, high: number];

/** A function of one voltage, with what interval arithmetic must know to enclose it. */
export interface Curve {
  /** Identity of the law with its parameters: equal keys mean equal functions. */
  readonly key: string;
  readonly f: (x: number) => number;
  /** Piecewise linear: where the slope changes, ascending. */
  readonly kinks?: readonly number[];
  /** Non-decreasing: a lower bound of the slope over [lo, hi]; 0 is always allowed. */
  readonly minSlope?: (lo: number, hi: number) => number;
  /** Neither: a guaranteed range over [lo, hi]. */
  readonly range?: (lo: number, hi: number) => Range;
}

/** `2^x`: an octave a volt. */
export const doubling: Curve = { key: '2^', f: (v) => 2 ** v, minSlope: (lo) => Math.LN2 * 2 ** lo };

interface AtomBase {
  /** Equal for equal atoms, wherever and whenever they were made. */
  readonly id: number;
  /** Plain interval enclosure, from the operands' own intervals. */
  readonly lo: number;
  readonly hi: number;
}

export type Atom = AtomBase &
  (
    | { readonly op: 'leaf'; readonly slot: number }
    | { readonly op: 'mul'; readonly a: Affine; readonly b: Affine }
    | { readonly op: 'square'; readonly a: Affine }
    | { readonly op: 'clamp'; readonly a: Affine; readonly min: number; readonly max: number }
    | { readonly op: 'curve'; readonly a: Affine; readonly curve: Curve }
    | { readonly op: 'couple'; readonly a: Affine }
  );

export interface Affine {
  readonly c: number;
  readonly atoms: readonly Atom[];
  readonly ks: readonly number[];
  readonly lo: number;
  readonly hi: number;
}

const ids = new WeakMap<Affine, number>();

/** Identity of a value: equal ids mean equal at every moment. */
export function idOf(x: Affine): number {
  const known = ids.get(x);
  if (known !== undefined) return known;
  const hash = new Hash().number(x.c);
  for (let i = 0; i < x.atoms.length; i++) hash.number(x.ks[i] as number).number((x.atoms[i] as Atom).id);
  const id = hash.sum;
  ids.set(x, id);
  return id;
}

export const isConstant = (x: Affine): boolean => x.atoms.length === 0;

export const isZero = (x: Affine): boolean => isConstant(x) && x.c === 0;

export function constant(c: number): Affine {
  return { c, atoms: [], ks: [], lo: c, hi: c };
}

export const ofAtom = (atom: Atom): Affine => ({
  c: 0,
  atoms: [atom],
  ks: [1],
  lo: atom.lo,
  hi: atom.hi,
});

function linOf(c: number, terms: ReadonlyMap<Atom, number>): Affine {
  const entries = [...terms].filter(([, k]) => k !== 0).sort(([a], [b]) => a.id - b.id);
  let lo = c;
  let hi = c;
  for (const [atom, k] of entries) {
    const [from, to] = scaledRange([atom.lo, atom.hi], k);
    lo += from;
    hi += to;
  }
  return { c, atoms: entries.map(([a]) => a), ks: entries.map(([, k]) => k), lo, hi };
}

/** `scale*x + shift` */
export function affine(x: Affine, scale: number, shift = 0): Affine {
  if (scale === 1 && shift === 0) return x;
  if (scale === 0) return constant(shift);
  const [a, b] = [x.lo * scale + shift, x.hi * scale + shift];
  return {
    c: x.c * scale + shift,
    atoms: x.atoms,
    ks: x.ks.map((k) => k * scale),
    lo: Math.min(a, b),
    hi: Math.max(a, b),
  };
}

/** `a + k*b` */
export function add(a: Affine, b: Affine, k = 1): Affine {
  if (isConstant(b)) return affine(a, 1, k * b.c);
  if (isConstant(a)) return affine(b, k, a.c);
  const terms = new Map<Atom, number>();
  a.atoms.forEach((atom, i) => terms.set(atom, a.ks[i] as number));
  b.atoms.forEach((atom, i) => terms.set(atom, (terms.get(atom) ?? 0) + k * (b.ks[i] as number)));
  return linOf(a.c + k * b.c, terms);
}

/** If `a = scale*b + shift` identically, those two numbers. */
export function relation(a: Affine, b: Affine): { scale: number; shift: number } | null {
  if (a.atoms.length !== b.atoms.length || a.atoms.length === 0) return null;
  const scale = (a.ks[0] as number) / (b.ks[0] as number);
  for (let i = 0; i < a.atoms.length; i++) {
    if (a.atoms[i] !== b.atoms[i]) return null;
    if (a.ks[i] !== scale * (b.ks[i] as number)) return null;
  }
  return { scale, shift: a.c - scale * b.c };
}

export function curveRange(curve: Curve, lo: number, hi: number): Range {
  if (curve.range) return curve.range(lo, hi);
  if (!curve.kinks) return [curve.f(lo), curve.f(hi)];
  const at = [lo, hi, ...curve.kinks.filter((x) => x > lo && x < hi)].map(curve.f);
  return [Math.min(...at), Math.max(...at)];
}

/** Between which bounds the slope of every chord of the curve over [lo, hi] lies. */
export function slopeRange(curve: Curve, lo: number, hi: number): Range {
  if (curve.range) return [-Infinity, Infinity];
  if (!curve.kinks) return [curve.minSlope?.(lo, hi) ?? 0, Infinity];
  let [least, most] = [Infinity, -Infinity];
  const ends = [...curve.kinks.filter((x) => x > lo && x < hi), hi];
  let from = lo;
  for (const to of ends) {
    const slope = to > from ? (curve.f(to) - curve.f(from)) / (to - from) : 0;
    least = Math.min(least, slope);
    most = Math.max(most, slope);
    from = to;
  }
  return [least, most];
}

/** `k*x` where x goes over the range. */
export const scaledRange = ([lo, hi]: Range, k: number): Range => (k > 0 ? [k * lo, k * hi] : [k * hi, k * lo]);

/** A range held between two limits. */
export const clampRange = ([lo, hi]: Range, min: number, max: number): Range => [
  Math.min(max, Math.max(min, lo)),
  Math.min(max, Math.max(min, hi)),
];

export function productRange(a: Range, b: Range): Range {
  if ([...a, ...b].some(Number.isNaN)) return [-Infinity, Infinity];
  // 0 times infinity is 0 here: a value that is 0 stays so whatever it multiplies.
  const p = [a[0] * b[0], a[0] * b[1], a[1] * b[0], a[1] * b[1]].map((x) => (x === x ? x : 0));
  return [Math.min(...p), Math.max(...p)];
}

export function squareRange(lo: number, hi: number): Range {
  const top = Math.max(lo * lo, hi * hi);
  return [lo <= 0 && hi >= 0 ? 0 : Math.min(lo * lo, hi * hi), top];
}
