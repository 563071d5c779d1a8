import { stream } from '../kinds/random';
import type { Travel } from '../units/knob';
import type { Job, Look } from './job';
import { boundedStep, descend } from './least';
import { combinations, isTwoSided } from './subsets';

/** A setting that was found, and the knobs that it moves. */
export interface Found extends Look {
  readonly moved: readonly number[];
}

export interface SearchOptions {
  /** Looks at settings, at most: a count, so that answers do not hang on the machine. */
  readonly looks: number;
  /** How many different settings are wanted. */
  readonly most: number;
  /** Knobs tried together before all others: those of the answer before. */
  readonly prefer?: readonly number[];
  /** Limits count. */
  readonly limited: boolean;
  /** Only what promises most, from where the knobs stand. */
  readonly quick?: boolean;
}

/** So many of one, two and three knobs are tried from several starts: those that promise most. */
const THOROUGH = [Infinity, 12, 6] as const;
/** A knob counts as moved beyond this share of its travel. */
const MOVED = 1e-9;
/** Settings of the same knobs are different answers from this share of a travel on. */
const APART = 0.05;
/** Beyond its ends, for what a knob would need: travels. */
const BEYOND = 50;

/** Finds settings that meet all targets, those that move the fewest knobs first. */
export class Search {
  readonly found: Found[] = [];
  /** The least that is missing, of all that was looked at. */
  nearest: Look;
  private readonly start: Float64Array;
  private readonly looksBefore: number;
  private readonly random = stream(7);

  constructor(
    private readonly job: Job,
    private readonly options: SearchOptions,
  ) {
    this.looksBefore = job.bench.looks;
    this.start = job.bench.start;
    this.nearest = job.look(this.start);
    this.keep(this.nearest);
  }

  run(): this {
    const n = this.start.length;
    const { prefer } = this.options;
    if (this.found.length > 0 || n === 0) return this;
    if (prefer && prefer.length > 0) this.together(prefer, true);
    if (this.enough()) return this;
    for (let size = 1; size <= Math.min(n, 3); size++) {
      if (this.enough()) return this;
      if (size === 3 && this.found.length > 0) break;
      this.subsets(size).forEach((subset, rank) => {
        if (!this.enough() && !this.spent()) this.together(subset, rank < (THOROUGH[size - 1] ?? 0));
      });
      if (this.spent()) return this;
    }
    if (this.found.length === 0 && n > 1 && !this.options.quick) this.all();
    return this;
  }

  /** Tries these knobs together and no others. */
  only(subset: readonly number[]): this {
    if (this.found.length === 0 && subset.length > 0) this.together(subset, false);
    return this;
  }

  private enough(): boolean {
    return this.found.length >= this.options.most;
  }

  private spent(): boolean {
    return this.job.bench.looks - this.looksBefore > this.options.looks;
  }

  /** So many knobs at a time, those first that promise most by the slopes where the knobs stand now. */
  private subsets(size: number): number[][] {
    const all = combinations(this.start.length, size);
    if (all.length < 2) return all;
    const slopes = this.slopes();
    const left = (subset: readonly number[]): number => {
      const low = subset.map((i) => -(this.start[i] as number));
      const high = subset.map((i) => 1 - (this.start[i] as number));
      const j = subset.map((i) => slopes.columns[i] as Float64Array);
      const d = boundedStep(j, slopes.r, low, high, 1e-12);
      const after = slopes.r.map((v, k) => v + j.reduce((sum, c, i) => sum + (c[k] ?? 0) * (d[i] as number), 0));
      return after.reduce((sum, v) => sum + v * v, 0);
    };
    const ranked = all.map((subset) => ({ subset, left: left(subset) })).sort((a, b) => a.left - b.left);
    return ranked.slice(0, size === 1 ? ranked.length : this.options.quick ? 8 : 40).map((r) => r.subset);
  }

  private known: { readonly r: Float64Array; readonly columns: Float64Array[] } | null = null;

  private slopes(): { readonly r: Float64Array; readonly columns: Float64Array[] } {
    if (this.known) return this.known;
    const f = (x: Float64Array): Float64Array => this.job.residual(x, 'parts');
    const h = this.step();
    const columns = [...this.start.keys()].map((i) => {
      const moved = Float64Array.from(this.start);
      const by = (moved[i] as number) + h <= 1 ? h : -h;
      moved[i] = (moved[i] as number) + by;
      const there = f(moved);
      return there.map((v) => v / by);
    });
    const r = f(this.start);
    const long = r.length;
    const padded = columns.map((c, i) => {
      const by = (this.start[i] as number) + h <= 1 ? h : -h;
      return Float64Array.from({ length: long }, (_, k) => (c[k] ?? 0) - (r[k] as number) / by);
    });
    this.known = { r, columns: padded };
    return this.known;
  }

  /** For differences: where ranges are searched for, or traces are run, a larger one than their own noise. */
  private step(): number {
    return this.job.traced ? 0.01 : this.job.exact ? 1e-4 : 2e-4;
  }

  /** @param thorough from more than one start. */
  private together(subset: readonly number[], thorough: boolean): void {
    const starts = this.starts(subset);
    const before = this.found.length;
    for (const start of thorough && !this.options.quick ? starts : starts.slice(0, 1)) {
      if (this.spent()) return;
      this.descend(start, subset);
      // One and its mirror image are enough.
      if (this.found.length > before + 1 && subset.length > 1) return;
    }
  }

  /** From where the knobs stand, then turned over, then off a dead middle. */
  private starts(subset: readonly number[]): Float64Array[] {
    const travels = this.job.bench.knobs.map((k) => k.travel);
    const moved = (change: (i: number) => number): Float64Array => {
      const x = Float64Array.from(this.start);
      for (const i of subset) x[i] = change(i);
      return x;
    };
    const at = (i: number): number => this.start[i] as number;
    const twoSided = (i: number): boolean => isTwoSided(travels[i] as Travel);
    const off = (i: number, side: number): number =>
      twoSided(i) && Math.abs(at(i) - 0.5) < 0.02 ? 0.5 + 0.25 * side : at(i);
    const starts = [
      moved((i) => off(i, 1)),
      moved((i) => off(i, -1)),
      moved((i) => (twoSided(i) ? 1 - off(i, 1) : at(i))),
    ];
    // Running the patch takes its time: from fewer places.
    const others = this.job.traced ? [0.25, 0.75] : [0.05, 0.3, 0.5, 0.7, 0.95];
    if (subset.length === 1) starts.push(...others.map((p) => moved(() => p)));
    else {
      // One turned over at a time: which of them shall flip is not known.
      for (const one of subset.filter(twoSided)) starts.push(moved((i) => (i === one ? 1 - off(i, 1) : off(i, 1))));
      if (!this.job.exact)
        starts.push(
          moved(() => 0.5),
          moved((i) => 0.25 + 0.5 * (at(i) > 0.5 ? 0 : 1)),
        );
    }
    const seen = new Set<string>();
    return starts.filter((x) => !seen.has(x.join()) && seen.add(x.join()));
  }

  private descend(start: Float64Array, free: readonly number[]): Look {
    const [low, high] = this.options.limited ? [0, 1] : [-BEYOND, BEYOND];
    const rounds = this.job.traced ? (this.options.quick ? 4 : 8) : 25;
    const options = { free, low, high, step: this.step(), rounds, enough: 1e-24 };
    // At its widest first: what meets that needs no second look.
    const wide = this.job.targets.some((t) => t.want === 'within')
      ? descend((x) => this.job.residual(x, 'parts', 0), start, options).x
      : null;
    if (wide) {
      const look = this.keep(this.job.look(this.tidy(wide)));
      if (look.met.every(Boolean)) return look;
    }
    const { x } = descend((y) => this.job.residual(y, 'parts'), wide ?? start, options);
    return this.keep(this.job.look(this.tidy(x)));
  }

  /** What hardly moved did not. */
  private tidy(x: Float64Array): Float64Array {
    return x.map((v, i) => (Math.abs(v - (this.start[i] as number)) < MOVED ? (this.start[i] as number) : v));
  }

  private keep(look: Look): Look {
    if (look.cost < this.nearest.cost) this.nearest = look;
    if (look.met.every(Boolean)) {
      const moved = [...look.x.keys()].filter((i) => look.x[i] !== this.start[i]);
      const same = this.found.some(
        (f) =>
          f.moved.join() === moved.join() &&
          f.x.every((v, i) => Math.abs(v - (look.x[i] as number)) <= APART) &&
          (look.errors[0]?.margin ?? 0) <= (f.errors[0]?.margin ?? 0) + 1e-6,
      );
      const within = !this.options.limited || look.x.every((v) => v >= 0 && v <= 1);
      if (!same && within) this.found.push({ ...look, moved });
    }
    return look;
  }

  /** All knobs at once; then those that need not move go back one by one. */
  private all(): void {
    const every = [...this.start.keys()];
    const travels = this.job.bench.knobs.map((k) => k.travel);
    const flips = every.filter((i) => isTwoSided(travels[i] as Travel)).slice(0, 6);
    const turned = flips.map((one) => this.start.map((v, i) => (i === one ? 1 - v : v)));
    const drawn = Array.from({ length: 12 }, () => this.start.map(() => 0.05 + 0.9 * this.random()));
    for (const start of [...this.starts(every), ...turned, ...drawn]) {
      if (this.spent() || this.found.length > 0) break;
      const look = this.descend(start, every);
      if (look.met.every(Boolean)) this.prune(look);
    }
  }

  private prune(look: Look): void {
    let best = look;
    const order = [...look.x.keys()].sort(
      (a, b) =>
        Math.abs((look.x[a] as number) - (this.start[a] as number)) -
        Math.abs((look.x[b] as number) - (this.start[b] as number)),
    );
    let free = order.filter((i) => best.x[i] !== this.start[i]);
    for (const i of order) {
      if (this.spent()) return;
      if (!free.includes(i) || free.length < 2) continue;
      const fewer = free.filter((k) => k !== i);
      const from = Float64Array.from(best.x);
      from[i] = this.start[i] as number;
      const next = this.descend(from, fewer);
      if (next.met.every(Boolean)) [best, free] = [next, fewer];
    }
    // What took more knobs than it needed is no answer of its own.
    const fewest = Math.min(...this.found.map((f) => f.moved.length));
    this.found.splice(0, this.found.length, ...this.found.filter((f) => f.moved.length === fewest));
  }
}
