import { curveRange, productRange, squareRange } from '../law/lin';
import type { Atom, Lin, Range } from '../law/lin';
import { isSource } from './parts';

export interface PackedLin {
  readonly c: number;
  readonly rows: readonly number[];
  readonly ks: readonly number[];
}

interface Step {
  readonly atom: Atom;
  readonly row: number;
  /** Which of the box's dimensions a source is, or -1. */
  readonly dim: number;
  readonly a: PackedLin;
  readonly b: PackedLin;
}

/** Below this the roundings of doubles stay under a billionth of a volt; above it they are given away. */
const GREAT = 1e5;
const ROUNDING = 16 * Number.EPSILON;

/** What to widen a range by when numbers as great as `size` were added up for it. */
export const roundingOf = (size: number): number => (size > GREAT ? ROUNDING * size : 0);

const empty: PackedLin = { c: 0, rows: [], ks: [] };

function collect(root: Lin): Atom[] {
  const seen = new Set<Atom>();
  const visit = (x: Lin): void => x.atoms.forEach(visitAtom);
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
export class Cone {
  readonly n: number;
  readonly low: Float64Array;
  readonly high: Float64Array;
  readonly steps: readonly Step[];
  readonly root: PackedLin;
  private readonly sources: readonly number[];
  private readonly rootRow: number;
  private readonly c: Float64Array;
  private readonly rlo: Float64Array;
  private readonly rhi: Float64Array;
  private readonly lo: Float64Array;
  private readonly hi: Float64Array;
  private readonly a: Float64Array;
  private readonly w: Float64Array;
  /** How great the numbers behind a row can have been: what its roundings are measured by. */
  private readonly size: Float64Array;
  private readonly value: Float64Array;
  /** The ranges of a row's one or two arguments, four numbers each. */
  private readonly arguments: Float64Array;

  constructor(root: Lin) {
    const atoms = collect(root);
    const rows = new Map<Atom, number>(atoms.map((atom, i) => [atom, i]));
    const pack = (x: Lin): PackedLin => ({ c: x.c, rows: x.atoms.map((atom) => rows.get(atom) ?? -1), ks: x.ks });
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
    this.n = dims;
    const sources = atoms.filter(isSource);
    this.low = Float64Array.from(sources, (s) => s.lo);
    this.high = Float64Array.from(sources, (s) => s.hi);
    const count = atoms.length + 3;
    this.rootRow = count - 1;
    this.c = new Float64Array(count);
    this.rlo = new Float64Array(count);
    this.rhi = new Float64Array(count);
    this.lo = new Float64Array(count);
    this.hi = new Float64Array(count);
    this.a = new Float64Array(count * dims);
    this.w = new Float64Array(count * dims);
    this.size = new Float64Array(count);
    this.value = new Float64Array(count);
    this.arguments = new Float64Array(4 * count);
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

  private source(row: number, dim: number, low: number, high: number): void {
    const { n } = this;
    this.a.fill(0, row * n, row * n + n);
    this.w.fill(0, row * n, row * n + n);
    this.c[row] = (low + high) / 2;
    this.rlo[row] = 0;
    this.rhi[row] = 0;
    this.a[row * n + dim] = (high - low) / 2;
    this.lo[row] = low;
    this.hi[row] = high;
    this.size[row] = Math.max(Math.abs(low), Math.abs(high));
  }

  private atomRow(atom: Atom, row: number, step: Step): void {
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

  private note(row: number, which: 0 | 1, from: number): void {
    this.arguments[4 * row + 2 * which] = this.lo[from] as number;
    this.arguments[4 * row + 2 * which + 1] = this.hi[from] as number;
  }

  private rangeOf(row: number): Range {
    return [this.lo[row] as number, this.hi[row] as number];
  }

  /** Narrows a row's range to what its affine form and `range` both allow. */
  private meet(row: number, range: Range): void {
    const { n } = this;
    let radius = 0;
    for (let i = row * n; i < row * n + n; i++) radius += Math.abs(this.a[i] as number);
    const c = this.c[row] as number;
    const slack = roundingOf(this.size[row] as number);
    this.lo[row] = Math.max(range[0], c - radius + (this.rlo[row] as number)) - slack;
    this.hi[row] = Math.min(range[1], c + radius + (this.rhi[row] as number)) + slack;
  }

  private combine(x: PackedLin, row: number): void {
    const { n, a, w } = this;
    const base = row * n;
    a.fill(0, base, base + n);
    w.fill(0, base, base + n);
    let [c, rlo, rhi, lo, hi, great] = [x.c, 0, 0, x.c, x.c, Math.abs(x.c)];
    for (let j = 0; j < x.rows.length; j++) {
      const k = x.ks[j] as number;
      const from = x.rows[j] as number;
      c += k * (this.c[from] as number);
      const low = k > 0 ? from : -1;
      rlo += k * ((low < 0 ? this.rhi[from] : this.rlo[from]) as number);
      rhi += k * ((low < 0 ? this.rlo[from] : this.rhi[from]) as number);
      lo += k * ((low < 0 ? this.hi[from] : this.lo[from]) as number);
      hi += k * ((low < 0 ? this.lo[from] : this.hi[from]) as number);
      const size = Math.abs(k);
      great += size * (this.size[from] as number);
      for (let i = 0; i < n; i++) {
        a[base + i] = (a[base + i] as number) + k * (a[from * n + i] as number);
        w[base + i] = (w[base + i] as number) + size * (w[from * n + i] as number);
      }
    }
    this.c[row] = c;
    this.rlo[row] = rlo;
    this.rhi[row] = rhi;
    this.size[row] = great;
    this.meet(row, [lo, hi]);
  }

  /** `slope*x + [from, to]` */
  private bend(row: number, x: number, slope: number, from: number, to: number): void {
    const { n, a, w } = this;
    this.c[row] = slope * (this.c[x] as number);
    const [r1, r2] = [slope * (this.rlo[x] as number), slope * (this.rhi[x] as number)];
    this.rlo[row] = Math.min(r1, r2) + from;
    this.rhi[row] = Math.max(r1, r2) + to;
    this.size[row] = Math.abs(slope) * (this.size[x] as number) + Math.max(Math.abs(from), Math.abs(to));
    let radius = 0;
    for (let i = x * n; i < x * n + n; i++) radius += Math.abs(a[i] as number);
    const share = radius > 0 ? (to - from) / radius : 0;
    for (let i = 0; i < n; i++) {
      const coefficient = a[x * n + i] as number;
      w[row * n + i] = Math.abs(slope) * (w[x * n + i] as number) + share * Math.abs(coefficient);
      a[row * n + i] = slope * coefficient;
    }
  }

  private squareRow(row: number, x: number): void {
    const { n, a, w } = this;
    const c = (this.c[x] as number) + ((this.rlo[x] as number) + (this.rhi[x] as number)) / 2;
    const rest = ((this.rhi[x] as number) - (this.rlo[x] as number)) / 2;
    const far = Math.max((this.hi[x] as number) - c, c - (this.lo[x] as number));
    this.c[row] = c * c;
    this.size[row] = (this.size[x] as number) ** 2;
    this.rlo[row] = -2 * Math.abs(c) * rest;
    this.rhi[row] = far * far + 2 * Math.abs(c) * rest;
    for (let i = 0; i < n; i++) {
      const coefficient = a[x * n + i] as number;
      a[row * n + i] = 2 * c * coefficient;
      w[row * n + i] = 2 * Math.abs(c) * (w[x * n + i] as number) + far * Math.abs(coefficient);
    }
  }

  private product(row: number, x: number, y: number): void {
    const { n, a, w } = this;
    const cx = (this.c[x] as number) + ((this.rlo[x] as number) + (this.rhi[x] as number)) / 2;
    const cy = (this.c[y] as number) + ((this.rlo[y] as number) + (this.rhi[y] as number)) / 2;
    const px = ((this.rhi[x] as number) - (this.rlo[x] as number)) / 2;
    const py = ((this.rhi[y] as number) - (this.rlo[y] as number)) / 2;
    let [sumX, sumY, below, above] = [0, 0, 0, 0];
    for (let i = 0; i < n; i++) {
      const ai = a[x * n + i] as number;
      const bi = a[y * n + i] as number;
      sumX += Math.abs(ai);
      sumY += Math.abs(bi);
      // A source times itself: s*s lies in 0..1, not in -1..1.
      if (ai * bi < 0) below += ai * bi;
      else above += ai * bi;
    }
    let cross = 0;
    for (let i = 0; i < n; i++) {
      const ai = a[x * n + i] as number;
      const bi = a[y * n + i] as number;
      let mine = 0;
      for (let j = 0; j < n; j++) {
        if (j === i) continue;
        const term = Math.abs(ai * (a[y * n + j] as number) + bi * (a[x * n + j] as number));
        mine += term;
        if (j > i) cross += term;
      }
      const carried = Math.abs(cy) * (w[x * n + i] as number) + Math.abs(cx) * (w[y * n + i] as number);
      w[row * n + i] = carried + Math.abs(ai * bi) + mine + Math.abs(ai) * py + Math.abs(bi) * px;
      a[row * n + i] = cx * bi + cy * ai;
    }
    const rest = Math.abs(cx) * py + Math.abs(cy) * px + px * (sumY + py) + py * sumX;
    this.c[row] = cx * cy;
    this.size[row] = (this.size[x] as number) * (this.size[y] as number);
    this.rlo[row] = below - cross - rest;
    this.rhi[row] = above + cross + rest;
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
