import type { RealModule } from '../document/real';
import type { Patch } from '../document/types';
import type { Target } from '../document/targets';
import { applyEdits } from '../edit/edit';
import { saidByPointers, trueLimits, withTrueSettings } from './asMeasured';
import { explain } from './explain/explain';
import { Budget } from './problem/budget';
import { widerJumpers } from './problem/jumpers';
import { Question } from './question';
import type { Claim } from './question';
import { editsOf } from './types';
import type { Solution, SolveAnswer, SolveOptions } from './types';
import { needsTrace } from './problem/errorOf';
import { buildGraph } from '../graph/graph';

/** Looks at settings, at most, for a whole answer with all that explains it. */
const LOOKS = { live: 160, plain: 12_000, traced: 900, tracedLive: 16 } as const;
/** The time after which a question ends with the best so far, seconds. */
const SECONDS = { bounds: 2, traced: 10 } as const;
const MOST = 5;

function budgetFor(
  patch: Patch,
  targets: readonly Target[],
  { live = false, seconds, progress }: SolveOptions,
): Budget {
  const graph = buildGraph(patch);
  const traced = targets.some((t) => needsTrace(graph, t));
  const looks = live ? (traced ? LOOKS.tracedLive : LOOKS.live) : traced ? LOOKS.traced : LOOKS.plain;
  return new Budget({
    looks,
    seconds: seconds ?? (traced ? SECONDS.traced : SECONDS.bounds),
    ...(progress && { progress }),
  });
}

/**
 * The knobs for what is asked for: settings with which all targets are met, each predicted in full, or the nearest with
 * what stands in the way. First the problem (targets, and the knobs that may turn), then the search (bounded least
 * squares over few knobs at a time), then what explains it.
 *
 * @param targets what is asked for; left out: the patch's own.
 * @returns `partial` where the budget ended before all was looked at: the best so far.
 */
export function solve(
  patch: Patch,
  options: SolveOptions = {},
  targets: readonly Target[] = patch.targets,
): SolveAnswer {
  if (patch.modules.some((m) => m.real && !isSolvable(m.real)))
    return saidByPointers(
      solve(withTrueSettings(patch), { ...options, channels: trueLimits(patch, options.channels) }, targets),
      patch,
    );
  const budget = budgetFor(patch, targets, options);
  const answer = answered({ ...patch, targets }, targets, options, budget);
  return budget.isLate ? { ...answer, partial: true } : answer;
}

/** Knobs are solved for as they really stand; then their pointers are told. */
const isSolvable = ({ pointers, fullVolts, timeScale, rateScale }: RealModule): boolean =>
  Object.keys(pointers).length === 0 && fullVolts === null && timeScale === 1 && rateScale === 1;

const NOTHING = { limits: [], contradictory: [], suggestion: null } as const;

function answered(patch: Patch, targets: readonly Target[], options: SolveOptions, budget: Budget): SolveAnswer {
  const question = new Question(patch, targets, options, budget);
  const { claims, nearest } = question.search();
  const more = options.jumpers && claims.length < MOST ? withJumpers(patch, targets, options, budget) : [];
  const solutions = [...claims.map((c) => c.solution), ...more].slice(0, MOST);
  if (solutions.length > 0) return { feasible: true, solutions, nearest: null, ...NOTHING };
  const ask = (changed: Patch): readonly Solution[] =>
    new Question(changed, targets, bare(options), budget).search().claims.map((c: Claim) => c.solution);
  return { feasible: false, solutions: [], ...explain(question, nearest, ask) };
}

function withJumpers(patch: Patch, targets: readonly Target[], options: SolveOptions, budget: Budget): Solution[] {
  return widerJumpers(patch, targets, options.channels)
    .flatMap((jumper) => {
      const changed = applyEdits(patch, editsOf({ settings: [], jumpers: [jumper] }));
      const { claims } = new Question(changed, targets, options, budget, [jumper]).search();
      return claims.map((c) => c.solution);
    })
    .sort((a, b) => a.moved - b.moved);
}

/** What a suggestion is asked with: its own new stage is free, whatever the list said. */
const bare = ({ asset, held, channels }: SolveOptions): SolveOptions => ({
  plain: true,
  ...(channels && { channels }),
  ...(asset && { asset }),
  ...(held && { held }),
});
