import { huberCost, linearFit } from './leastSquares';
import type { Effects } from './leastSquares';
import { isTiming } from './problem';
import type { Problem } from './problem';

/** A reading that lies further from the fit does not belong to it, in sigmas. */
export const OUTLIER = 4;
const ROUNDS = 4;
/** The fit is settled when no trait moves by more, in sigmas of its prior. */
const SETTLED = 0.02;

interface Fit {
  readonly x: readonly number[];
  readonly effects: Effects;
  readonly before: Float64Array;
  readonly after: Float64Array;
}

interface Reached {
  readonly x: readonly number[];
  readonly predicted: Float64Array;
  readonly effects: Effects;
}

/** Least squares with Huber weights and priors, begun again where readings are left far off. */
export function fitted(problem: Problem, progress?: (share: number) => void): Fit {
  const ideal: readonly number[] = new Array<number>(problem.size).fill(0);
  const before = problem.predicted(ideal);
  const costOf = (r: Pick<Reached, 'x' | 'predicted'>): number => huberCost(problem.residual(r.predicted), r.x);
  let best = descended(problem, tried(problem, { x: ideal, predicted: before }, TRIED), progress);
  for (let again = 0; again < AGAIN; again++) {
    if (problem.residual(best.predicted).every((r) => Math.abs(r) <= OUTLIER)) break;
    const begun = tried(problem, best, TRIED_CLOSER);
    if (begun.x === best.x) break;
    const found = descended(problem, begun);
    if (costOf(found) < costOf(best)) best = found;
  }
  return { x: best.x, effects: best.effects, before, after: best.predicted };
}

/** Gauss–Newton steps, damped as Marquardt does (1963) where one fails. */
function descended(
  problem: Problem,
  begun: Pick<Reached, 'x' | 'predicted'>,
  progress?: (share: number) => void,
): Reached {
  let { x, predicted } = begun;
  let effects = problem.effects(x, (s) => progress?.(0.6 * s));
  let cost = huberCost(problem.residual(predicted), x);
  let damping = 0;
  for (let round = 0; round < ROUNDS && x.length > 0; round++) {
    progress?.(0.6 + (0.4 * round) / ROUNDS);
    const from = x;
    const linear = linearFit(effects, problem.residual(predicted), from, damping);
    const there = problem.predicted(linear);
    const reached = huberCost(problem.residual(there), linear);
    if (reached > cost * (1 + 1e-9) + 1e-9) {
      damping = damping === 0 ? 1 : 10 * damping;
      continue;
    }
    const moved = Math.max(...linear.map((v, i) => Math.abs(v - (from[i] as number))));
    [x, predicted, cost] = [linear, there, reached];
    if (moved < SETTLED) break;
    effects = problem.effects(x, undefined, effects);
  }
  return { x, predicted, effects };
}

/** Where times and rates are tried before any step: what comes late or often is not linear in them. */
const TRIED = [-2, -1, 1, 2];
const TRIED_CLOSER = [-2.5, -2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2, 2.5];
/** A fit that leaves readings far off is begun again so often. */
const AGAIN = 2;

/** The likeliest of a few values of every time and rate, one after the other. */
function tried(
  problem: Problem,
  start: Pick<Reached, 'x' | 'predicted'>,
  values: readonly number[],
): Pick<Reached, 'x' | 'predicted'> {
  const cost = (t: Pick<Reached, 'x' | 'predicted'>): number => huberCost(problem.residual(t.predicted), t.x);
  let best = start;
  problem.unknowns.forEach(({ parameter, rack }, i) => {
    if (!isTiming(parameter)) return;
    const from = best;
    for (const value of values) {
      const x = from.x.map((v, k) => (k === i ? value : v));
      const found = { x, predicted: problem.predicted(x, { rack, beside: from.predicted }) };
      if (cost(found) < cost(best)) best = found;
    }
  });
  return best;
}
