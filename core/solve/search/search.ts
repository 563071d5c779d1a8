import { stream } from '../../kinds/random';
import type { Travel } from '../../units/knob';
import type { Allowance } from '../problem/budget';
import { allMet, Problem } from '../problem/problem';
import type { Look } from '../problem/problem';
import { descend } from './least';
import { Ranking, stepOf } from './ranking';
import { isTwoSided, startsFor } from './starts';

/** A setting that was found, and the knobs that it moves. */
export interface Found extends Look {
  readonly moved: readonly number[];
}

export interface SearchOptions {
  readonly allowance: Allowance;
  /** How many different settings are wanted. */
  readonly most: number;
  /** Knobs tried together before all others: those of the answer before. */
  readonly prefer?: readonly number[];
  /** Limits count. */
  readonly limited: boolean;
  /** Only what promises most, from where the knobs stand. */
  readonly quick?: boolean;
}

/** How many choices of one, two and three knobs are tried from several starts, the most promising first. */
const THOROUGH = [Infinity, 12, 6] as const;
/** How many choices of two and of three knobs are tried at all. */
const SUBSETS = { quick: 8, thorough: 60 } as const;
/** A knob counts as moved beyond this share of its travel. */
const MOVED = 1e-9;
/** Settings of the same knobs are different answers from this share of a travel on. */
const APART = 0.05;
/** Beyond its ends, for what a knob would need: travels. */
const BEYOND = 50;
/** Costs that differ by less, as a share, are the same. */
const SAME_COST = 1e-6;
/** How many ways to meet each of several targets are searched for, and how many combinations of them are tried. */
const ALTERNATIVES = 6;
const UNIONS = 16;
/** Rounds in which a margin is widened. */
const WIDENINGS = 6;

const travelled = (look: Look, start: ArrayLike<number>): number =>
  look.x.reduce((sum, v, i) => sum + Math.abs(v - (start[i] as number)), 0);

/** What is left over at a setting, all targets together. */
export const marginOf = ({ errors }: Look): number => errors.reduce((sum, e) => sum + (e.margin ?? 0), 0);

/** Finds settings that meet all targets, those that move the fewest knobs first. */
export class Search {
  readonly found: Found[] = [];
  /** The least that is missing, of all that was looked at. */
  nearest: Look;
  private readonly start: Float64Array;
  private readonly travels: readonly Travel[];
  private readonly random = stream(7);
  private readonly ranking: Ranking;

  constructor(
    private readonly problem: Problem,
    private readonly options: SearchOptions,
  ) {
    this.start = problem.trials.start;
    this.travels = problem.trials.knobs.map((k) => k.travel);
    this.ranking = new Ranking(problem);
    this.nearest = problem.look(this.start);
    this.keep(this.nearest);
  }

  run(): this {
    const n = this.start.length;
    const { prefer } = this.options;
    if (this.found.length > 0 || n === 0) return this;
    if (prefer && prefer.length > 0) this.together(prefer, true);
    if (this.enough()) return this;
    this.oneByOne();
    this.bySize();
    if (this.found.length === 0 && n > 1 && !this.spent()) this.all();
    return this;
  }

  /** One knob, two, then three together; quickly, those sizes alone of which the slopes promise something. */
  private bySize(): void {
    for (
      let size = this.options.quick ? this.ranking.promisingSize() : 1;
      size <= Math.min(this.start.length, 3);
      size++
    ) {
      if (this.enough() || this.spent()) return;
      if (this.found.some((f) => f.moved.length < size || (f.moved.length === size && size > 2))) return;
      this.subsets(size).forEach((subset, rank) => {
        if (!this.enough() && !this.spent()) this.together(subset, rank < (THOROUGH[size - 1] ?? 0));
      });
    }
  }

  /**
   * The knobs that meet each target by itself, together: where few knobs do for each, few do for all, and which they are
   * slopes at the start need not tell.
   */
  private oneByOne(): void {
    const { problem, options } = this;
    if (problem.targets.length < 2 || options.quick) return;
    let unions: Float64Array[] = [this.start];
    for (const target of problem.targets) {
      const alone = new Search(new Problem(problem.trials, [target]), { ...options, most: ALTERNATIVES, prefer: [] });
      const ways = alone.run().found;
      const both = (x: Float64Array, way: Found): Float64Array =>
        x.map((v, i) => (way.moved.includes(i) ? (way.x[i] as number) : v));
      unions = unions.flatMap((x) => ways.map((way) => both(x, way)));
      unions = unions.toSorted((a, b) => this.movedIn(a).length - this.movedIn(b).length).slice(0, UNIONS);
    }
    for (const from of unions) {
      if (this.spent()) return;
      const look = this.descend(from, this.movedIn(from));
      if (!allMet(look)) continue;
      this.prune(look);
      return;
    }
  }

  private movedIn(x: Float64Array): number[] {
    return [...x.keys()].filter((i) => x[i] !== this.start[i]);
  }

  /** Tries these knobs together and no others. */
  only(subset: readonly number[]): this {
    if (this.found.length === 0 && subset.length > 0) this.together(subset, false);
    return this;
  }

  /** Tries these knobs together, from where others found them. */
  from(x: Float64Array, subset: readonly number[]): this {
    if (subset.length > 0) this.descend(x, subset);
    return this;
  }

  private enough(): boolean {
    return this.found.length >= this.options.most;
  }

  private spent(): boolean {
    return this.options.allowance.isSpent();
  }

  /** A number of knobs at a time, the most promising by their present slopes first. */
  private subsets(size: number): number[][] {
    const ranked = this.ranking.ofSize(size);
    const most = size === 1 ? ranked.length : this.options.quick ? SUBSETS.quick : SUBSETS.thorough;
    return ranked.slice(0, most).map((r) => r.subset);
  }

  /** @param thorough from more than one start. */
  private together(subset: readonly number[], thorough: boolean): void {
    const starts = startsFor(this.problem, subset);
    const before = this.found.length;
    for (const start of thorough && !this.options.quick ? starts : starts.slice(0, 1)) {
      if (this.spent()) return;
      this.descend(start, subset);
      // One and its mirror image are enough.
      if (this.found.length > before + 1 && subset.length > 1) return;
    }
  }

  private descend(start: Float64Array, free: readonly number[]): Look {
    const { problem } = this;
    const wide = problem.targets.some((t) => t.want === 'within');
    // At its widest first: what meets that needs no second look.
    const widest = wide ? this.descended(start, free, { margin: 0 }) : null;
    if (widest) {
      const look = this.keep(problem.look(this.tidy(widest)));
      if (allMet(look)) return look;
    }
    const x = this.descended(widest ?? start, free);
    const look = this.keep(problem.look(this.tidy(x)));
    return allMet(look) && !this.options.quick ? this.widened(look, free) : look;
  }

  private descended(start: Float64Array, free: readonly number[], aim?: { readonly margin: number }): Float64Array {
    const [low, high] = this.options.limited ? [0, 1] : [-BEYOND, BEYOND];
    const rounds = this.problem.traced ? (this.options.quick ? 4 : 8) : 25;
    const isSpent = (): boolean => this.spent();
    const options = { free, low, high, step: stepOf(this.problem), rounds, enough: 1e-24, isSpent };
    return descend((x) => this.problem.residual(x, 'residuals', aim), start, options).x;
  }

  /** The same knobs as far inside what is asked for at steps as they come: the widest margin is best. */
  private widened(look: Look, free: readonly number[]): Look {
    if (!this.problem.targets.some((t) => t.want === 'steps')) return look;
    let best = look;
    let by = Math.max(0.5, marginOf(look));
    for (let round = 0; round < WIDENINGS && !this.spent(); round++) {
      const asked = Math.max(0, ...best.errors.map((e) => e.margin ?? 0)) + by;
      const next = this.problem.look(this.tidy(this.descended(best.x, free, { margin: asked })));
      if (allMet(next) && marginOf(next) > marginOf(best) + 1e-9) best = this.keep(next);
      else by /= 3;
    }
    return best;
  }

  /** What hardly moved did not. */
  private tidy(x: Float64Array): Float64Array {
    return x.map((v, i) => (Math.abs(v - (this.start[i] as number)) < MOVED ? (this.start[i] as number) : v));
  }

  private keep(look: Look): Look {
    if (this.isNearer(look)) this.nearest = look;
    const within = !this.options.limited || look.x.every((v) => v >= 0 && v <= 1);
    if (!allMet(look) || !within || this.problem.stills(look)) return look;
    const needed = this.withoutIdle(look);
    const moved = this.movedIn(needed.x);
    const same = this.found.findIndex(
      (f) => f.moved.join() === moved.join() && f.x.every((v, i) => Math.abs(v - (needed.x[i] as number)) <= APART),
    );
    const found = { ...needed, moved };
    if (same < 0) this.found.push(found);
    else if (this.isBetter(found, this.found[same] as Found)) this.found[same] = found;
    return needed;
  }

  /** Less is missing; of as much, by the shorter way. */
  private isNearer(look: Look): boolean {
    const { cost } = this.nearest;
    if (Math.abs(look.cost - cost) > SAME_COST * cost) return look.cost < cost;
    return travelled(look, this.start) < travelled(this.nearest, this.start);
  }

  /** Of two settings of the same knobs that are all but one: the wider margin, then the shorter way. */
  private isBetter(a: Found, b: Found): boolean {
    const [wider, before] = [marginOf(a), marginOf(b)];
    if (Math.abs(wider - before) > 1e-6) return wider > before;
    return travelled(a, this.start) < travelled(b, this.start) - 1e-6;
  }

  /** Knobs whose turn is not needed stay where they stood. */
  private withoutIdle(look: Look): Look {
    let best = look;
    for (const i of look.x.keys()) {
      if (best.x[i] === this.start[i]) continue;
      const back = Float64Array.from(best.x);
      back[i] = this.start[i] as number;
      const next = this.problem.look(back);
      if (allMet(next) && marginOf(next) >= marginOf(best) - 1e-6 && !this.problem.stills(next)) best = next;
    }
    return best;
  }

  /** All knobs at once; then those that need not move go back one by one. */
  private all(): void {
    const every = [...this.start.keys()];
    const flips = every.filter((i) => isTwoSided(this.travels[i] as Travel)).slice(0, 6);
    const flipped = flips.map((one) => this.start.map((v, i) => (i === one ? 1 - v : v)));
    const drawn = Array.from({ length: 12 }, () => this.start.map(() => 0.05 + 0.9 * this.random()));
    const starts = this.options.quick ? [this.start] : [...startsFor(this.problem, every), ...flipped, ...drawn];
    for (const start of starts) {
      if (this.spent() || this.found.length > 0) break;
      const look = this.descend(start, every);
      if (allMet(look)) this.prune(look);
    }
  }

  /** Meets the targets with fewer knobs, those that moved least going back first. */
  prune(look: Look): void {
    let best = look;
    const way = (i: number): number => Math.abs((look.x[i] as number) - (this.start[i] as number));
    const order = [...look.x.keys()].sort((a, b) => way(a) - way(b));
    let free = order.filter((i) => best.x[i] !== this.start[i]);
    for (const i of order) {
      if (this.spent()) return;
      if (!free.includes(i) || free.length < 2) continue;
      const fewer = free.filter((k) => k !== i);
      const from = Float64Array.from(best.x);
      from[i] = this.start[i] as number;
      const next = this.descend(from, fewer);
      if (allMet(next)) [best, free] = [next, fewer];
    }
    this.dropLonger();
  }

  /** What took more knobs than it needed is no answer of its own. */
  private dropLonger(): void {
    const fewest = Math.min(...this.found.map((f) => f.moved.length));
    this.found.splice(0, this.found.length, ...this.found.filter((f) => f.moved.length === fewest));
  }
}
