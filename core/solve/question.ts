import type { Patch } from '../document/types';
import type { Target } from '../document/targets';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { controlRate } from '../graph/upstream';
import { solutionOf } from './explain/answer';
import type { Budget } from './problem/budget';
import { freeKnobs, isIdle } from './problem/knobs';
import { allMet, Problem } from './problem/problem';
import type { Look } from './problem/problem';
import type { Setting } from './problem/setting';
import { runnersOf, settledAs } from './problem/runner';
import { Trials } from './problem/trials';
import type { TrialOptions } from './problem/trials';
import { blocksOf } from './search/blocks';
import type { Block } from './search/blocks';
import { ranked } from './search/rank';
import { Search } from './search/search';
import type { Found } from './search/search';
import type { JumperSetting, Solution, SolveOptions } from './types';

/** How close bounds come that a claim rests on: a tenth of what a target allows. */
const CLOSE = { within: 1e-4, boxes: 16_384 } as const;
/** Looks that the search itself may take: what is left explains why there is no answer. */
const LOOKS = { live: 110, plain: 6000, traced: 400, tracedLive: 12 } as const;
const MOST = 5;
const ROUND_STEP = 0.005;
/** Up to this many knobs are rounded in every combination; more are rounded one after another. */
const ROUNDED_TOGETHER = 6;

/** By what rate a target can be looked for: how long something takes shows at a fifth of what it allows, samples a second. */
const rateFor = (t: Target): number =>
  t.want === 'fall' || t.want === 'arrive' ? Math.max(500, 500 / t.seconds) : Infinity;

export interface Claim {
  readonly look: Look;
  readonly solution: Solution;
}

/** One question: targets at a patch, with the knobs that may turn. */
export class Question {
  readonly problem: Problem;
  private readonly graph: Graph;
  /** What slow voltages alone need; null where the patch's own rate is needed. */
  private readonly slow: number | null;
  private readonly rate: number | null;

  constructor(
    readonly patch: Patch,
    readonly targets: readonly Target[],
    readonly options: SolveOptions,
    readonly budget: Budget,
    private readonly jumpers: readonly JumperSetting[] = [],
  ) {
    this.graph = buildGraph(patch);
    const knobs = freeKnobs(this.graph, targets, options).filter((k) => !isIdle(this.graph, k));
    this.slow = controlRate(
      this.graph,
      targets.map((t) => t.at),
    );
    // Searched for at a low rate; a claim is checked at the patch's own.
    this.rate = this.slow === null ? null : Math.min(this.slow, ...targets.map(rateFor));
    this.problem = new Problem(new Trials(patch, targets, knobs, this.trialOptions(this.rate)), targets);
  }

  private trialOptions(rate: number | null): TrialOptions & Parameters<typeof settledAs>[1] {
    const { asset, rough = false } = this.options;
    const run = { ...(rate !== null && { sampleRate: rate }), ...(asset && { asset }) };
    return { budget: this.budget, ...(!rough && { closeness: CLOSE }), ...run, runner: runnersOf(run) };
  }

  /** Solutions that were predicted, in full, with the settings as they are given back. */
  search(): { readonly claims: readonly Claim[]; readonly nearest: Look } {
    const { targets, problem } = this;
    const blocks = blocksOf(this.graph, targets, problem.trials.knobs);
    if (blocks.length < 2) {
      const { found, nearest } = this.searched(problem, null);
      return { claims: this.claims(found), nearest };
    }
    const parts = blocks.map((block) => ({ block, ...this.searched(this.part(block), block) }));
    const nearest = problem.look(this.together(parts.map(({ block, nearest: look }) => ({ block, x: look.x }))));
    const whole = parts.every(({ found }) => found.length > 0) ? this.combined(parts) : [];
    return { claims: this.claims(whole), nearest };
  }

  private part({ targets, knobs }: Block): Problem {
    const own = targets.map((t) => this.targets[t] as Target);
    const moved = knobs.map((k) => this.problem.trials.knobs[k] as Problem['trials']['knobs'][number]);
    return new Problem(new Trials(this.patch, own, moved, this.trialOptions(this.rate)), own);
  }

  private searched(
    problem: Problem,
    block: Block | null,
  ): { readonly found: readonly Found[]; readonly nearest: Look } {
    const { live = false, plain = false, prefer } = this.options;
    const looks = live ? (problem.traced ? LOOKS.tracedLive : LOOKS.live) : problem.traced ? LOOKS.traced : LOOKS.plain;
    const names = problem.trials.knobs.map((k) => k.name);
    const preferred = (prefer ?? []).map((name) => names.indexOf(name)).filter((i) => i >= 0);
    const most = live || plain || block ? 1 : MOST + 3;
    const allowance = this.budget.allow(looks);
    const search = new Search(problem, { allowance, most, limited: true, prefer: preferred, quick: live }).run();
    return { found: ranked(problem, search.found), nearest: search.nearest };
  }

  /** Positions of all knobs, put together from those of blocks. */
  private together(parts: readonly { readonly block: Block; readonly x: Float64Array }[]): Float64Array {
    const whole = this.problem.trials.start;
    for (const { block, x } of parts) block.knobs.forEach((k, i) => (whole[k] = x[i] as number));
    return whole;
  }

  /** The best of every block together; then, block by block, another of its answers beside the best of the others. */
  private combined(parts: readonly { readonly block: Block; readonly found: readonly Found[] }[]): Found[] {
    const { start } = this.problem.trials;
    const picks = [
      parts.map(() => 0),
      ...parts.flatMap((_, b) =>
        (parts[b]?.found ?? []).slice(1).map((__, n) => parts.map((___, i) => (i === b ? n + 1 : 0))),
      ),
    ];
    return picks.slice(0, MOST).map((pick): Found => {
      const x = this.together(parts.map(({ block, found }, i) => ({ block, x: (found[pick[i] ?? 0] as Found).x })));
      const look = this.problem.look(x);
      return { ...look, moved: [...x.keys()].filter((k) => x[k] !== start[k]) };
    });
  }

  private claims(found: readonly Found[]): Claim[] {
    return found.slice(0, MOST).flatMap((f) => this.claim(f) ?? []);
  }

  /** Checks a setting as it is given back; null where it does not hold. */
  private claim(found: { readonly x: Float64Array }): Claim | null {
    const { look, setting } = this.predicted(this.rounded(found.x));
    // On steps of half a percent a target is met only where it is: what is given back is the nearest such setting.
    return allMet(look) || this.options.rounded ? this.told(look, setting) : null;
  }

  /** The steps of half a percent around a setting with the least that is missing. */
  private rounded(x: Float64Array): Float64Array {
    if (!this.options.rounded) return x;
    const { start } = this.problem.trials;
    const moved = [...x.keys()].filter((i) => x[i] !== start[i]);
    const steps = (p: number): number[] =>
      [...new Set([Math.floor(p / ROUND_STEP), Math.ceil(p / ROUND_STEP)])].map((n) => n * ROUND_STEP);
    let best = [x];
    moved.forEach((i, n) => {
      const next = best.flatMap((y) => steps(x[i] as number).map((p) => y.map((v, k) => (k === i ? p : v))));
      best = n < ROUNDED_TOGETHER ? next : [this.nearestOf(next)];
    });
    return this.nearestOf(best);
  }

  private nearestOf(list: readonly Float64Array[]): Float64Array {
    const looks = list.map((x) => this.problem.look(x));
    return looks.reduce((a, b) => (b.cost < a.cost ? b : a)).x;
  }

  private predicted(x: Float64Array): { readonly look: Look; readonly setting: Setting } {
    const changed = applyEdits(this.patch, this.problem.trials.edits(x));
    // Under a moving hand slow voltages are run as finely as they need; the patch's own run follows when it rests.
    const rate = this.options.live && this.problem.traced ? this.slow : null;
    const setting = settledAs(changed, this.trialOptions(rate));
    return { look: this.problem.look(x, setting), setting };
  }

  private told(look: Look, setting: Setting): Claim {
    const { live = false, plain = false } = this.options;
    const solution = solutionOf(this.problem, look, setting, { jumpers: this.jumpers, plain: live || plain });
    return { look, solution };
  }

  /** A setting that does not meet everything, as it is given back. */
  nearest(best: Look): Claim {
    const { live = false } = this.options;
    const x = this.rounded(best.x);
    // Under a moving hand a run in full is kept for what is called met.
    if (live && this.problem.traced) return this.told(best, this.problem.trials.at(x));
    const { look, setting } = this.predicted(x);
    return this.told(look, setting);
  }
}
