import type { Affine, Range } from '../law/affine';
import { Cone } from './cone';
import { Slopes } from './slopes';

/** An expression larger than this keeps its plain interval: even one evaluation takes too long. */
const TOO_GREAT = 2e4;

/**
 * How often a value is evaluated, at most, by the numbers that one evaluation works out: up to a thousand of them every box
 * may be used; an expression of hundreds of values, which no number of boxes would resolve, gets a few.
 */
const evaluationsFor = (work: number): number => Math.max(4, (1e7 / Math.max(1000, work) ** 2) * 1000);

/** What the tolerance is a share of where the true span is nothing, volts. */
const NO_SPAN = 20;

interface Box {
  readonly low: Float64Array;
  readonly high: Float64Array;
  readonly bound: number;
  readonly cut: number;
}

class Heap {
  private readonly items: Box[] = [];

  push(box: Box): void {
    const { items } = this;
    let i = items.length;
    items.push(box);
    while (i > 0) {
      const parent = (i - 1) >> 1;
      if ((items[parent] as Box).bound >= box.bound) break;
      items[i] = items[parent] as Box;
      i = parent;
    }
    items[i] = box;
  }

  pop(): Box | undefined {
    const { items } = this;
    const top = items[0];
    const last = items.pop();
    if (!top || !last || items.length === 0) return top;
    let i = 0;
    for (;;) {
      let child = 2 * i + 1;
      if (child >= items.length) break;
      if (child + 1 < items.length && (items[child + 1] as Box).bound > (items[child] as Box).bound) child++;
      if ((items[child] as Box).bound <= last.bound) break;
      items[i] = items[child] as Box;
      i = child;
    }
    items[i] = last;
    return top;
  }
}

/**
 * Best-first branch and bound over the sources of a value (Horst and Tuy, "Global Optimization", ch. IV), to within a
 * share of the span found or within a given number of boxes.
 */
export class Search {
  private readonly cone: Cone;
  private readonly slopes: Slopes;
  private readonly point: Float64Array;
  /** Whether both ends were found as closely as was asked. */
  close = true;
  /** How many were looked at: what one end leaves of them is the other's. */
  private boxes = 0;
  /** The extremes that were attained. */
  private least = Infinity;
  private most = -Infinity;

  /** How often the whole value may still be evaluated. */
  private left: number;

  constructor(
    private readonly x: Affine,
    private readonly mostBoxes: number,
    private readonly within: number,
  ) {
    this.cone = new Cone(x);
    this.left = evaluationsFor(this.cone.work);
    this.slopes = new Slopes(this.cone);
    this.point = new Float64Array(this.cone.n);
  }

  range(): Range {
    const { cone, x } = this;
    if (cone.work > TOO_GREAT) {
      this.close = false;
      return [x.lo, x.hi];
    }
    cone.evaluate(cone.low, cone.high);
    this.probe(cone.low, cone.high);
    const hi = this.climb(1, this.mostBoxes / 2);
    return [this.climb(-1, this.mostBoxes - this.boxes), hi];
  }

  private tolerance(): number {
    const span = this.most - this.least;
    return this.within * (span > 1e-9 ? span : NO_SPAN);
  }

  /** Evaluates the two corners which the affine form of the box just evaluated points at. */
  private probe(low: Float64Array, high: Float64Array): void {
    for (const side of [1, -1]) {
      for (let i = 0; i < this.cone.n; i++) {
        const slope = this.cone.coefficient(i) * side;
        const [lo, hi] = [low[i] as number, high[i] as number];
        this.point[i] = slope > 0 ? hi : slope < 0 ? lo : (lo + hi) / 2;
      }
      const v = this.cone.at(this.point);
      if (v < this.least) this.least = v;
      if (v > this.most) this.most = v;
    }
  }

  private cutOf(low: Float64Array, high: Float64Array): number {
    let [best, cut] = [-1, 0];
    for (let i = 0; i < this.cone.n; i++) {
      const width = (high[i] as number) - (low[i] as number);
      const score = width > 0 ? this.cone.blame(i) + 1e-9 * width : -1;
      if (score > best) [best, cut] = [score, i];
    }
    return cut;
  }

  /** The box's bound from outside, after every source that the value only rises or only falls with is set to its end. */
  private enclose(low: Float64Array, high: Float64Array, side: 1 | -1): number {
    const { cone, slopes } = this;
    for (;;) {
      const range = cone.evaluate(low, high);
      this.left--;
      const bound = side > 0 ? range[1] : -range[0];
      if (bound <= this.attained(side)) return bound;
      slopes.gather();
      let set = false;
      for (let i = 0; i < cone.n; i++) {
        const sign = low[i] === high[i] ? 0 : slopes.sign(cone.rowOf(i));
        if (sign === 0) continue;
        set = true;
        if (sign * side > 0) low[i] = high[i] as number;
        else high[i] = low[i] as number;
      }
      if (!set || this.left < 0) return bound;
    }
  }

  private attained(side: 1 | -1): number {
    return side > 0 ? this.most : -this.least;
  }

  /** The greatest value (`side` 1) or the least (-1), from outside. */
  private climb(side: 1 | -1, most: number): number {
    const queue = new Heap();
    const add = (low: Float64Array, high: Float64Array, most: number): void => {
      const bound = Math.min(most, this.enclose(low, high, side));
      this.probe(low, high);
      if (bound > this.attained(side)) queue.push({ low, high, bound, cut: this.cutOf(low, high) });
    };
    add(this.cone.low.slice(), this.cone.high.slice(), Infinity);
    const enough = side > 0 ? this.left / 2 : 0;
    for (let boxes = 0; boxes < most && this.left > enough; boxes += 2, this.boxes += 2) {
      const box = queue.pop();
      if (!box) return side * this.attained(side);
      if (box.bound <= this.attained(side) + this.tolerance()) return side * Math.max(box.bound, this.attained(side));
      const middle = ((box.low[box.cut] as number) + (box.high[box.cut] as number)) / 2;
      const [low, high] = [box.low.slice(), box.high.slice()];
      low[box.cut] = middle;
      high[box.cut] = middle;
      add(box.low, high, box.bound);
      add(low, box.high, box.bound);
    }
    const rest = queue.pop()?.bound ?? -Infinity;
    if (rest > this.attained(side) + this.tolerance()) this.close = false;
    return side * Math.max(this.attained(side), rest);
  }
}
