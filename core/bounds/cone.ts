import { curveRange, productRange, squareRange } from '../law/affine';
import type { Atom, Affine, Range } from '../law/affine';
import { isSource } from './parts';
import { Rows } from './rows';
import type { PackedLin } from './rows';

export { roundingOf } from './rows';
export type { PackedLin } from './rows';

interface ConeStep {
  readonly atom: Atom;
  readonly row: number;
  /** Which of the box's dimensions a source is, or -1. */
  readonly dim: number;
  readonly a: PackedLin;
  readonly b: PackedLin;
}

const empty: PackedLin = { c: 0, rows: [], ks: [] };

function collect(root: Affine): Atom[] {
  const seen = new Set<Atom>();
  const visit = (x: Affine): void => x.atoms.forEach(visitAtom);
  const visitAtom = (atom: Atom): void => {
    if (seen.has(atom)) return;
    if (!isSource(atom)) {
      if ('a' in atom) visit(atom.a);
      if ('b' in atom) visit(atom.b);
    }
    seen.add(atom);
  };
  visit(root);
  return [...seen];
}

/**
 * All that one value depends on, laid out in flat arrays, to be evaluated over many boxes of its sources.
 *
 * Affine arithmetic after de Figueiredo and Stolfi, "Affine arithmetic: concepts and applications" (2004), with
 * the remainder of all non-linear steps in one interval, beside plain interval arithmetic; the answer is what
 * both allow. Row r holds centre, remainder, range, one coefficient a source, and one weight a source: how much of
 * the remainder that source is to blame for, which tells the search where to cut.
 */
export class Cone extends Rows {
  readonly low: Float64Array;
  readonly high: Float64Array;
  readonly steps: readonly ConeStep[];
  readonly root: PackedLin;
  private readonly sources: readonly number[];
  private readonly rootRow: number;
  private readonly value: Float64Array;

  constructor(root: Affine) {
    const atoms = collect(root);
    const sources = atoms.filter(isSource);
    super(atoms.length + 3, sources.length);
    const rows = new Map<Atom, number>(atoms.map((atom, i) => [atom, i]));
    const pack = (x: Affine): PackedLin => ({ c: x.c, rows: x.atoms.map((atom) => rows.get(atom) ?? -1), ks: x.ks });
    let dims = 0;
    this.steps = atoms.map((atom, row) => ({
      atom,
      row,
      dim: isSource(atom) ? dims++ : -1,
      a: 'a' in atom && !isSource(atom) ? pack(atom.a) : empty,
      b: 'b' in atom ? pack(atom.b) : empty,
    }));
    this.sources = this.steps.filter(({ dim }) => dim >= 0).map(({ row }) => row);
    this.root = pack(root);
    this.low = Float64Array.from(sources, (s) => s.lo);
    this.high = Float64Array.from(sources, (s) => s.hi);
    this.rootRow = atoms.length + 2;
    this.value = new Float64Array(atoms.length + 3);
  }

  /** The enclosure over the box; read `top`, `coefficient` and `blame` after it. */
  evaluate(low: Float64Array, high: Float64Array): Range {
    for (const step of this.steps) {
      const { atom, row, dim } = step;
      if (dim >= 0) this.source(row, dim, low[dim] as number, high[dim] as number);
      else this.atomRow(atom, row, step);
    }
    this.combine(this.root, this.rootRow);
    return [this.lo[this.rootRow] as number, this.hi[this.rootRow] as number];
  }

  /** Numbers that one evaluation works out, in the order of size: a product is about pairs of sources. */
  get work(): number {
    const products = this.steps.filter(({ atom }) => atom.op === 'mul').length;
    return 1 + this.n * (this.steps.length + products * this.n);
  }

  /** The row of the source that is dimension `dim`. */
  rowOf(dim: number): number {
    return this.sources[dim] as number;
  }

  coefficient(dim: number): number {
    return this.a[this.rootRow * this.n + dim] as number;
  }

  blame(dim: number): number {
    return this.w[this.rootRow * this.n + dim] as number;
  }

  /** The range of a row's first (0) or second (1) argument. */
  argument(row: number, which: 0 | 1): Range {
    const at = 4 * row + 2 * which;
    return [this.arguments[at] as number, this.arguments[at + 1] as number];
  }

  /** The value where each source is at a point: attained, up to rounding. */
  at(point: Float64Array): number {
    const v = this.value;
    for (const { atom, row, dim, a, b } of this.steps) {
      v[row] = dim >= 0 ? (point[dim] as number) : this.atomValue(atom, this.weigh(a), this.weigh(b));
    }
    return this.weigh(this.root);
  }

  private weigh(x: PackedLin): number {
    let sum = x.c;
    for (let i = 0; i < x.rows.length; i++) sum += (x.ks[i] as number) * (this.value[x.rows[i] as number] as number);
    return sum;
  }

  private atomValue(atom: Atom, a: number, b: number): number {
    switch (atom.op) {
      case 'mul':
        return a * b;
      case 'square':
        return a * a;
      case 'clamp':
        return Math.min(atom.max, Math.max(atom.min, a));
      case 'curve':
        return atom.curve.f(a);
      default:
        return a;
    }
  }

  private atomRow(atom: Atom, row: number, step: ConeStep): void {
    const left = this.rootRow - 2;
    this.combine(step.a, left);
    this.note(row, 0, left);
    if (atom.op === 'mul') {
      this.combine(step.b, left + 1);
      this.note(row, 1, left + 1);
      this.product(row, left, left + 1);
      this.meet(row, productRange(this.rangeOf(left), this.rangeOf(left + 1)));
      return;
    }
    const [lo, hi] = this.rangeOf(left);
    if (atom.op === 'square') {
      this.squareRow(row, left);
      this.meet(row, squareRange(lo, hi));
    } else if (atom.op === 'clamp') {
      const { min, max } = atom;
      const f = (x: number): number => Math.min(max, Math.max(min, x));
      this.bend(row, left, ...secant(f, [min, max], lo, hi));
      this.meet(row, [f(lo), f(hi)]);
    } else if (atom.op === 'curve') {
      const { curve } = atom;
      if (curve.kinks) this.bend(row, left, ...secant(curve.f, curve.kinks, lo, hi));
      else {
        const slope = curve.minSlope && hi > lo ? curve.minSlope(lo, hi) : 0;
        const [from, to] =
          slope === 0 ? curveRange(curve, lo, hi) : [curve.f(lo) - slope * lo, curve.f(hi) - slope * hi];
        this.bend(row, left, slope, from, to);
      }
      this.meet(row, curveRange(curve, lo, hi));
    }
  }
}

/** The chord of a piecewise linear function over [lo, hi]: its slope, and how far the function leaves it. */
function secant(f: (x: number) => number, kinks: readonly number[], lo: number, hi: number): [number, number, number] {
  if (!(hi > lo)) return [0, f(lo), f(lo)];
  const slope = (f(hi) - f(lo)) / (hi - lo);
  let from = f(lo) - slope * lo;
  let to = from;
  for (const x of kinks) {
    if (x <= lo || x >= hi) continue;
    const d = f(x) - slope * x;
    from = Math.min(from, d);
    to = Math.max(to, d);
  }
  return [slope, from, to];
}
