import { slopeRange } from '../law/affine';
import type { Range } from '../law/affine';
import type { Cone, PackedLin } from './cone';

/** 0 times infinity is 0 here: what does not move moves nothing. */
const times = (a: number, b: number): number => (a === 0 || b === 0 ? 0 : a * b);

/**
 * Which way a value goes with each of its sources over the box that the cone has just evaluated: interval bounds of
 * the difference quotients, gathered backwards from the root (Griewank and Walther, "Evaluating Derivatives", ch. 3,
 * over intervals). Holds for steps and kinks too, since it speaks of differences, not of derivatives.
 */
export class Slopes {
  private readonly lo: Float64Array;
  private readonly hi: Float64Array;

  constructor(private readonly cone: Cone) {
    this.lo = new Float64Array(cone.steps.length);
    this.hi = new Float64Array(cone.steps.length);
  }

  /** Reads what `evaluate` left. */
  gather(): void {
    const { cone, lo, hi } = this;
    lo.fill(0);
    hi.fill(0);
    this.hand(cone.root, 1, 1);
    for (let row = cone.steps.length - 1; row >= 0; row--) {
      const step = cone.steps[row];
      const [from, to] = [lo[row] as number, hi[row] as number];
      if (!step || step.dim >= 0 || (from === 0 && to === 0)) continue;
      const { atom } = step;
      const a = cone.argument(row, 0);
      if (atom.op === 'mul') {
        this.through(step.a, from, to, cone.argument(row, 1));
        this.through(step.b, from, to, a);
      } else if (atom.op === 'square') this.through(step.a, from, to, [2 * a[0], 2 * a[1]]);
      else if (atom.op === 'clamp') {
        const inside = a[0] >= atom.min && a[1] <= atom.max;
        const outside = a[1] <= atom.min || a[0] >= atom.max;
        this.through(step.a, from, to, [inside ? 1 : 0, outside ? 0 : 1]);
      } else if (atom.op === 'curve') this.through(step.a, from, to, slopeRange(atom.curve, a[0], a[1]));
    }
  }

  /** 1: never falls while the source rises; -1: never rises; 0: not known. */
  sign(row: number): -1 | 0 | 1 {
    if ((this.lo[row] as number) >= 0) return 1;
    return (this.hi[row] as number) <= 0 ? -1 : 0;
  }

  private through(x: PackedLin, lo: number, hi: number, [from, to]: Range): void {
    const [p, q, r, s] = [times(lo, from), times(lo, to), times(hi, from), times(hi, to)];
    this.hand(x, Math.min(p, q, r, s), Math.max(p, q, r, s));
  }

  private hand(x: PackedLin, lo: number, hi: number): void {
    for (let i = 0; i < x.rows.length; i++) {
      const row = x.rows[i] as number;
      const k = x.ks[i] as number;
      const [p, q] = [times(k, lo), times(k, hi)];
      this.lo[row] = (this.lo[row] as number) + Math.min(p, q);
      this.hi[row] = (this.hi[row] as number) + Math.max(p, q);
    }
  }
}
