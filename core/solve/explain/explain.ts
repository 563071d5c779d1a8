import type { Patch } from '../../document/types';
import { widerJumpers } from '../problem/jumpers';
import type { Look } from '../problem/problem';
import type { Question } from '../question';
import type { Solution, SolveAnswer } from '../types';
import { contradictionsOf, limitsOf, nearestOf } from './limits';
import { lockOf, suggestionOf } from './suggest';

const NOTHING = { limits: [], contradictory: [], suggestion: null } as const;

/**
 * Why targets cannot all be met: the nearest setting, the knobs that run out, the targets that contradict each other,
 * and the smallest change that would help, found by solving again.
 */
export function explain(
  question: Question,
  best: Look,
  ask: (changed: Patch) => readonly Solution[],
): Pick<SolveAnswer, 'nearest' | 'limits' | 'contradictory' | 'suggestion'> {
  const { patch, targets, options, problem, budget } = question;
  const { live = false, plain = false } = options;
  const closest = question.nearest(nearestOf(problem, best, live, budget));
  const nearest = closest.solution;
  const { limits, reachable } = limitsOf(problem, closest.look, live, budget);
  if (live || plain) return { ...NOTHING, nearest, limits };
  const lock = limits.length === 0 ? lockOf(patch, targets, ask) : null;
  const contradictory = reachable ? [] : contradictionsOf(problem, closest.look, budget);
  const jumpers = widerJumpers(patch, targets, options.channels);
  const suggestion = lock ?? (contradictory.length > 0 ? null : suggestionOf(patch, targets, { limits, jumpers }, ask));
  return { nearest, limits: lock ? [] : limits, contradictory, suggestion };
}
