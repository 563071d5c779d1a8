import type { Range } from '../law/affine';

export interface PackedLin {
  readonly c: number;
  readonly rows: readonly number[];
  readonly ks: readonly number[];
}

/** Below this the roundings of doubles stay under a billionth of a volt; above it they are given away. */
const GREAT = 1e5;
const ROUNDING = 16 * Number.EPSILON;

/** What to widen a range by when numbers as great as `size` were added up for it. */
export const roundingOf = (size: number): number => (size > GREAT ? ROUNDING * size : 0);

/**
 * Rows of affine forms in flat arrays: centre, remainder, range, one coefficient a source, and one weight a source, how
 * much of the remainder that source is to blame for.
 */
export class Rows {
  protected readonly c: Float64Array;
  protected readonly rlo: Float64Array;
  protected readonly rhi: Float64Array;
  protected readonly lo: Float64Array;
  protected readonly hi: Float64Array;
  protected readonly a: Float64Array;
  protected readonly w: Float64Array;
  /** How great the numbers behind a row can have been: what its roundings are measured by. */
  protected readonly size: Float64Array;
  /** The ranges of a row's one or two arguments, four numbers each. */
  protected readonly arguments: Float64Array;

  /** @param n how many sources. */
  constructor(
    count: number,
    readonly n: number,
  ) {
    this.c = new Float64Array(count);
    this.rlo = new Float64Array(count);
    this.rhi = new Float64Array(count);
    this.lo = new Float64Array(count);
    this.hi = new Float64Array(count);
    this.a = new Float64Array(count * n);
    this.w = new Float64Array(count * n);
    this.size = new Float64Array(count);
    this.arguments = new Float64Array(4 * count);
  }

  protected source(row: number, dim: number, low: number, high: number): void {
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

  protected note(row: number, which: 0 | 1, from: number): void {
    this.arguments[4 * row + 2 * which] = this.lo[from] as number;
    this.arguments[4 * row + 2 * which + 1] = this.hi[from] as number;
  }

  protected rangeOf(row: number): Range {
    return [this.lo[row] as number, this.hi[row] as number];
  }

  /** Narrows a row's range to what its affine form and `range` both allow. */
  protected meet(row: number, range: Range): void {
    const { n } = this;
    let radius = 0;
    for (let i = row * n; i < row * n + n; i++) radius += Math.abs(this.a[i] as number);
    const c = this.c[row] as number;
    const slack = roundingOf(this.size[row] as number);
    this.lo[row] = Math.max(range[0], c - radius + (this.rlo[row] as number)) - slack;
    this.hi[row] = Math.min(range[1], c + radius + (this.rhi[row] as number)) + slack;
  }

  protected combine(x: PackedLin, row: number): void {
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
  protected bend(row: number, x: number, slope: number, from: number, to: number): void {
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

  protected squareRow(row: number, x: number): void {
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

  protected product(row: number, x: number, y: number): void {
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
