import type { Patch } from '../document/types';
import type { Target } from '../document/wants';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { controlRate } from '../graph/upstream';
import { solutionOf } from './answer';
import { Bench, settledAs } from './bench';
import type { BenchOptions } from './bench';
import { Job } from './job';
import type { Look } from './job';
import { widerJumpers } from './jumpers';
import { freeKnobs, isIdle } from './knobs';
import { contradictionsOf, limitsOf, nearestOf } from './limits';
import { Search } from './search';
import type { Found } from './search';
import { lockOf, suggestionOf } from './suggest';
import { editsOf } from './types';
import type { JumperSetting, Limit, Solution, SolveAnswer, SolveOptions } from './types';

/** How close bounds come that a claim rests on: a tenth of what a target allows. */
const CLOSE = { within: 1e-4, boxes: 16_384 } as const;
/** Looks at settings, at most. */
const LOOKS = { live: 110, plain: 6000, traced: 400, tracedLive: 12 } as const;
const MOST = 5;
const ROUND_STEP = 0.005;

/** By what rate a target can be looked for: how long a fall takes shows at a fifth of what it allows, samples a second. */
const rateFor = (t: Target): number => (t.want === 'fall' ? Math.max(500, 500 / t.seconds) : Infinity);

interface Claim {
  readonly look: Look;
  readonly solution: Solution;
}

/** Half a step of every knob that moved, as what it makes of each target's error. */
function roundingSlack(job: Job, x: Float64Array): number[] {
  const { bench, targets } = job;
  const here = job.look(x).errors.map((e) => e.error);
  const slack = targets.map(() => 0);
  for (const [i, from] of bench.start.entries()) {
    if (x[i] === from) continue;
    const off = Float64Array.from(x);
    off[i] = (x[i] as number) + (ROUND_STEP / 2) * ((x[i] as number) < 0.5 ? 1 : -1);
    job.look(off).errors.forEach((e, t) => (slack[t] = (slack[t] as number) + Math.abs(e.error - (here[t] as number))));
  }
  return slack;
}

/** One question: targets at a patch, with the knobs that may turn. */
class Question {
  private readonly job: Job;
  /** What slow voltages alone need; null where the patch's own rate is needed. */
  private readonly slow: number | null;

  constructor(
    readonly patch: Patch,
    private readonly targets: readonly Target[],
    private readonly options: SolveOptions,
    private readonly jumpers: readonly JumperSetting[] = [],
  ) {
    const graph = buildGraph(patch);
    const knobs = freeKnobs(graph, targets, options).filter((k) => !isIdle(graph, k));
    this.slow = controlRate(
      graph,
      targets.map((t) => t.at),
    );
    // Searched for at a low rate; a claim is checked at the patch's own.
    const rate = this.slow === null ? null : Math.min(this.slow, ...targets.map(rateFor));
    this.job = new Job(new Bench(patch, targets, knobs, this.benchOptions(rate)), targets);
  }

  private benchOptions(rate: number | null): BenchOptions {
    const { asset, rough = false } = this.options;
    return { ...(!rough && { closeness: CLOSE }), ...(rate !== null && { sampleRate: rate }), ...(asset && { asset }) };
  }

  get bench(): Bench {
    return this.job.bench;
  }

  /** Solutions that were predicted, in full, with the settings as they are given back. */
  solutions(): { readonly claims: Claim[]; readonly nearest: Look } {
    const { live = false, plain = false, prefer } = this.options;
    const { traced } = this.job;
    const looks = live ? (traced ? LOOKS.tracedLive : LOOKS.live) : traced ? LOOKS.traced : LOOKS.plain;
    const names = this.bench.knobs.map((k) => k.name);
    const preferred = (prefer ?? []).map((name) => names.indexOf(name)).filter((i) => i >= 0);
    const most = live || plain ? 1 : MOST + 3;
    const search = new Search(this.job, { looks, most, limited: true, prefer: preferred, quick: live }).run();
    const claims = ranked(this.job, search.found)
      .slice(0, MOST)
      .flatMap((found) => this.claim(found) ?? []);
    return { claims, nearest: search.nearest };
  }

  private rounded(x: Float64Array): Float64Array {
    if (!this.options.rounded) return x;
    const { start } = this.bench;
    return x.map((p, i) => (p === start[i] ? p : Math.round(p / ROUND_STEP) * ROUND_STEP));
  }

  /** Checks a setting as it is given back; null where it does not hold. */
  claim(found: { readonly x: Float64Array }): Claim | null {
    const x = this.rounded(found.x);
    const claim = this.predicted(x);
    const slack = this.options.rounded ? roundingSlack(this.job, x) : [];
    const holds = claim.look.errors.every(
      (e, i) => e.error <= this.job.allowed(this.targets[i] as Target, e) + (slack[i] ?? 0) + 1e-12,
    );
    if (!holds) return null;
    const met = claim.look.met.map(() => true);
    return this.told({ ...claim.look, met }, claim.setting);
  }

  predicted(x: Float64Array): { readonly look: Look; readonly setting: ReturnType<typeof settledAs> } {
    const changed = applyEdits(this.patch, this.bench.edits(x));
    // Under a moving hand slow voltages are run as finely as they need; the patch's own run follows when it rests.
    const rate = this.options.live && this.job.traced ? this.slow : null;
    const setting = settledAs(changed, this.benchOptions(rate));
    return { look: this.job.look(x, setting), setting };
  }

  told(look: Look, setting: ReturnType<typeof settledAs>): Claim {
    const { live = false, plain = false } = this.options;
    return { look, solution: solutionOf(this.job, look, setting, { jumpers: this.jumpers, plain: live || plain }) };
  }

  nearest(best: Look): Claim {
    const { live = false } = this.options;
    const x = this.rounded(nearestOf(this.job, best, live).x);
    // Under a moving hand a run in full is kept for what is called met.
    if (live && this.job.traced) return this.told(best, this.bench.at(x));
    const { look, setting } = this.predicted(x);
    return this.told(look, setting);
  }

  limits(nearest: Look): { readonly limits: Limit[]; readonly reachable: boolean } {
    return limitsOf(this.job, nearest, this.options.live ?? false);
  }
}

/** Fewest knobs, then the widest, then what the knobs' own errors disturb least, then amounts high. */
function ranked(job: Job, found: readonly Found[]): Found[] {
  const margin = (f: Found): number => f.errors.reduce((sum, e) => sum + (e.margin ?? 0), 0);
  const key = new Map(found.map((f) => [f, { margin: margin(f), spread: spreadOf(job, f), open: openness(job, f) }]));
  const of = (f: Found): { margin: number; spread: number; open: number } =>
    key.get(f) ?? { margin: 0, spread: 0, open: 0 };
  return found.toSorted((a, b) => {
    if (a.moved.length !== b.moved.length) return a.moved.length - b.moved.length;
    const [x, y] = [of(a), of(b)];
    if (Math.abs(x.margin - y.margin) > 1e-6) return y.margin - x.margin;
    if (Math.abs(x.spread - y.spread) > 0.01 * Math.max(x.spread, y.spread)) return x.spread - y.spread;
    return y.open - x.open;
  });
}

/** What a hundredth of every knob's travel makes of the drives' ends, all together, volts. */
function spreadOf(job: Job, { x, errors }: Found): number {
  if (job.traced) return 0;
  let squares = 0;
  for (const i of x.keys()) {
    const off = Float64Array.from(x);
    off[i] = (x[i] as number) + ((x[i] as number) > 0.5 ? -0.01 : 0.01);
    job.look(off).errors.forEach(({ reached }, t) => {
      const before = errors[t]?.reached ?? reached;
      squares += (reached[0] - before[0]) ** 2 + (reached[1] - before[1]) ** 2;
    });
  }
  return Math.sqrt(squares);
}

/** Amounts high and levels low: what comes in loud needs no lift behind. */
function openness(job: Job, { x }: Found): number {
  return job.bench.knobs.reduce((sum, { module, param, travel }, i) => {
    const amount = job.bench.modules[module]?.inputs.some((s) => s.spec.amount === param) ?? false;
    const p = x[i] as number;
    const size = travel.min < 0 ? Math.abs(2 * p - 1) : p;
    return sum + (amount ? size : param === 'bias' ? -size : 0);
  }, 0);
}

function withJumpers(patch: Patch, targets: readonly Target[], options: SolveOptions): Solution[] {
  return widerJumpers(patch, targets, options.channels)
    .flatMap((jumper) => {
      const changed = applyEdits(patch, editsOf({ settings: [], jumpers: [jumper] }));
      return new Question(changed, targets, options, [jumper]).solutions().claims.map((c) => c.solution);
    })
    .sort((a, b) => a.moved - b.moved);
}

const NOTHING = { limits: [], contradictory: [], suggestion: null } as const;

/**
 * The knobs for what is wanted: settings with which all targets are met, each predicted in full, or the nearest with
 * what stands in the way (bounded least squares over few knobs at a time, certified by bounds and traces).
 *
 * @param targets what is wanted; left out: the patch's own.
 */
export function solve(
  patch: Patch,
  options: SolveOptions = {},
  targets: readonly Target[] = patch.targets,
): SolveAnswer {
  return answer({ ...patch, targets }, targets, options, true);
}

function answer(patch: Patch, targets: readonly Target[], options: SolveOptions, help: boolean): SolveAnswer {
  const question = new Question(patch, targets, options);
  const { claims, nearest } = question.solutions();
  const more = options.jumpers && claims.length < MOST ? withJumpers(patch, targets, options) : [];
  const solutions = [...claims.map((c) => c.solution), ...more].slice(0, MOST);
  if (solutions.length > 0) return { feasible: true, solutions, nearest: null, ...NOTHING };
  if (!help) return { feasible: false, solutions: [], nearest: null, ...NOTHING };
  const closest = question.nearest(nearest);
  const failed = { feasible: false, solutions: [], nearest: closest.solution };
  const { limits, reachable } = question.limits(closest.look);
  if (options.live || options.plain) return { ...failed, ...NOTHING, limits };
  const ask = (changed: Patch): SolveAnswer => answer(changed, targets, bare(options), false);
  const jumpers = widerJumpers(patch, targets, options.channels);
  const lock = limits.length === 0 ? lockOf(patch, targets, ask) : null;
  const contradictory = reachable ? [] : contradictionsOf(question.bench, targets);
  const suggestion = lock ?? (contradictory.length > 0 ? null : suggestionOf(patch, targets, { limits, jumpers }, ask));
  return { ...failed, limits: lock ? [] : limits, contradictory, suggestion };
}

/** What a suggestion is asked with: its own new stage is free, whatever the list said. */
const bare = ({ asset, held, channels }: SolveOptions): SolveOptions => ({
  plain: true,
  ...(channels && { channels }),
  ...(asset && { asset }),
  ...(held && { held }),
});
