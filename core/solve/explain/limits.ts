import type { Target } from '../../document/targets';
import type { Budget } from '../problem/budget';
import { allMet, Problem } from '../problem/problem';
import type { Look } from '../problem/problem';
import { descend } from '../search/least';
import { Search } from '../search/search';
import type { Limit } from '../types';
import { nameOfTarget, needOf, shortOf } from './answer';

/** Looks that a question beside the answer may take. */
const LOOKS = { plain: 1000, traced: 60, quick: 50, quickTraced: 6 } as const;
/** Looks that tell whether two targets contradict each other. */
const PAIR_LOOKS = { plain: 250, traced: 40 } as const;
/** Beyond its ends, for what a knob would need: travels. */
const BEYOND = 50;

function looksFor({ traced }: Problem, quick: boolean): number {
  if (quick) return traced ? LOOKS.quickTraced : LOOKS.quick;
  return traced ? LOOKS.traced : LOOKS.plain;
}

/**
 * The setting with the least weighted sum of squared errors, the greater of a target's ends counting: from the best
 * that was found on the way.
 */
export function nearestOf(problem: Problem, best: Look, quick: boolean, budget: Budget): Look {
  const free = [...best.x.keys()];
  if (free.length === 0 || quick || budget.spent) return best;
  const { traced } = problem;
  const { isSpent } = budget.allow(looksFor(problem, quick));
  const options = {
    free,
    low: 0,
    high: 1,
    step: traced ? 0.01 : 1e-5,
    rounds: traced ? 4 : 30,
    enough: 1e-24,
    isSpent,
  };
  const { x } = descend((y) => problem.residual(y, 'greatest'), best.x, options);
  const look = settled(problem, problem.look(x));
  return look.cost < best.cost && !problem.stills(look) ? look : best;
}

/** Knobs that do nothing for it stay where they stood. */
function settled(problem: Problem, look: Look): Look {
  const { start } = problem.trials;
  let best = look;
  for (const i of look.x.keys()) {
    if (problem.traced || best.x[i] === start[i]) continue;
    const back = Float64Array.from(best.x);
    back[i] = start[i] as number;
    const next = problem.look(back);
    if (next.cost <= best.cost * (1 + 1e-9)) best = next;
  }
  return best;
}

/** The setting beyond the limits that meets all targets and lies on the nearest's own side; null where there is none. */
function jointOf(problem: Problem, nearest: Look, quick: boolean, budget: Budget): Look | null {
  const { traced, trials } = problem;
  const moved = [...nearest.x.keys()].filter((i) => nearest.x[i] !== trials.start[i]);
  const ends = [...nearest.x.keys()].filter((i) => nearest.x[i] === 0 || nearest.x[i] === 1);
  const allowance = budget.allow(looksFor(problem, quick));
  const step = traced ? 0.01 : 1e-4;
  const beyond = { low: -BEYOND, high: BEYOND, step, rounds: traced ? 6 : 25, enough: 1e-24, ...allowance };
  // The fewest knobs that could: those at their ends, then all that moved, then any.
  for (const free of [ends, [...new Set([...moved, ...ends])], [...nearest.x.keys()]]) {
    if (free.length === 0 || allowance.isSpent()) continue;
    const { x } = descend((y) => problem.residual(y, 'residuals'), nearest.x, { ...beyond, free });
    const look = problem.look(x);
    if (allMet(look) && !problem.stills(look)) return look;
  }
  if (quick) return null;
  const search = new Search(problem, { allowance, most: 1, limited: false, prefer: moved });
  return search.run().found[0] ?? null;
}

/** Each knob at its end, with what it would have in the joint solution without limits; none where there is no such. */
export function limitsOf(
  problem: Problem,
  nearest: Look,
  quick: boolean,
  budget: Budget,
): { readonly limits: Limit[]; readonly reachable: boolean } {
  if (nearest.x.length === 0) return { limits: [], reachable: false };
  const joint = jointOf(problem, nearest, quick, budget);
  if (!joint) return { limits: [], reachable: false };
  const limits = [...joint.x.keys()].flatMap((i): Limit[] => {
    const need = needOf(problem, i, joint.x[i] as number);
    if (!need) return [];
    return [{ at: problem.trials.knobs[i]?.name ?? '', ...need, short: shortOf(need.needs, need.limit) }];
  });
  return { limits, reachable: true };
}

/**
 * Pairs of targets that both bind in the nearest setting, of which each can be met, and both cannot, whatever the
 * limits.
 */
export function contradictionsOf(problem: Problem, nearest: Look, budget: Budget): [string, string][] {
  const { trials, targets, traced } = problem;
  const binding = targets.filter((_, i) => !(nearest.met[i] ?? false));
  if (binding.length < 2) return [];
  const canBeMet = (asked: readonly Target[]): boolean | null => {
    const allowance = budget.allow(traced ? PAIR_LOOKS.traced : PAIR_LOOKS.plain);
    if (allowance.isSpent()) return null;
    const search = new Search(new Problem(trials, asked), { allowance, most: 1, limited: false });
    return search.run().found.length > 0;
  };
  const alone = new Map(binding.map((t) => [t, canBeMet([t]) ?? false]));
  return binding.flatMap((a, i) =>
    binding.slice(i + 1).flatMap((b): [string, string][] => {
      if (!alone.get(a) || !alone.get(b)) return [];
      return canBeMet([a, b]) === false ? [[nameOfTarget(a), nameOfTarget(b)]] : [];
    }),
  );
}
