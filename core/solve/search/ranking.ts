import type { Problem } from '../problem/problem';
import { boundedStep } from './least';

/** Less than this share of the cost left, a choice of knobs promises to meet what is asked for. */
const PROMISING = 1e-2;

/** A choice of knobs, and what by the slopes is left of the cost. */
interface Ranked {
  readonly subset: number[];
  readonly left: number;
}

interface Slopes {
  readonly r: Float64Array;
  readonly columns: readonly Float64Array[];
}

/** All choices of a number out of `n`, in order; at most 5000. */
export function combinations(n: number, size: number): number[][] {
  if (size === 0) return [[]];
  const all: number[][] = [];
  const grow = (from: number, taken: number[]): void => {
    if (taken.length === size) return void all.push(taken);
    for (let i = from; i < n && all.length < 5000; i++) grow(i + 1, [...taken, i]);
  };
  grow(0, []);
  return all;
}

/** For differences: where ranges are searched for, or traces are run, a larger one than their own noise. */
export const stepOf = ({ traced, exact }: Problem): number => (traced ? 0.01 : exact ? 1e-4 : 2e-4);

/** Choices of knobs by what the slopes promise where the knobs stand now. */
export class Ranking {
  private readonly start: Float64Array;
  private readonly ranks = new Map<number, Ranked[]>();
  private known: Slopes | null = null;

  constructor(private readonly problem: Problem) {
    this.start = problem.trials.start;
  }

  /** The fewest knobs that by the slopes leave next to nothing, else two; one where slopes tell nothing. */
  promisingSize(): number {
    const { r } = this.slopes();
    const cost = r.reduce((sum, v) => sum + v * v, 0);
    const [one = Infinity, two = Infinity] = [1, 2].map((size) => this.ofSize(size)[0]?.left ?? Infinity);
    return one > PROMISING * cost && two < PROMISING * one ? 2 : 1;
  }

  /** All choices of a number of knobs, each with the error that the slopes leave. */
  ofSize(size: number): readonly Ranked[] {
    const known = this.ranks.get(size);
    if (known) return known;
    const all = combinations(this.start.length, size);
    if (all.length < 2) return all.map((subset) => ({ subset, left: 0 }));
    const slopes = this.slopes();
    const left = (subset: readonly number[]): number => {
      const low = subset.map((i) => -(this.start[i] as number));
      const high = subset.map((i) => 1 - (this.start[i] as number));
      const j = subset.map((i) => slopes.columns[i] as Float64Array);
      const d = boundedStep(j, slopes.r, low, high, 1e-12);
      const after = slopes.r.map((v, k) => v + j.reduce((sum, c, i) => sum + (c[k] ?? 0) * (d[i] as number), 0));
      return after.reduce((sum, v) => sum + v * v, 0);
    };
    const ranked = all.map((subset): Ranked => ({ subset, left: left(subset) })).sort((a, b) => a.left - b.left);
    this.ranks.set(size, ranked);
    return ranked;
  }

  private slopes(): Slopes {
    if (this.known) return this.known;
    const f = (x: Float64Array): Float64Array => this.problem.residual(x, 'residuals');
    const h = stepOf(this.problem);
    const moves = [...this.start.keys()].map((i) => {
      const moved = Float64Array.from(this.start);
      const by = (moved[i] as number) + h <= 1 ? h : -h;
      moved[i] = (moved[i] as number) + by;
      return { there: f(moved), by };
    });
    // Last, so that it has a place for every residual that shows anywhere.
    const r = f(this.start);
    const columns = moves.map(({ there, by }) =>
      Float64Array.from({ length: r.length }, (_, k) => ((there[k] ?? 0) - (r[k] as number)) / by),
    );
    this.known = { r, columns };
    return this.known;
  }
}
