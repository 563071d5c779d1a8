import type { Target } from '../document/wants';
import type { Bench } from './bench';
import { needOf, nameOfTarget, shortOf } from './answer';
import { Job } from './job';
import type { Look } from './job';
import { descend } from './least';
import { Search } from './search';
import type { Limit } from './types';

/** Looks that a question beside the answer may take. */
const LOOKS = 1500;
const TRACED_LOOKS = 60;
const QUICK_LOOKS = 50;
const QUICK_TRACED_LOOKS = 6;

function looksFor(job: Job, quick = false): number {
  if (quick) return job.traced ? QUICK_TRACED_LOOKS : QUICK_LOOKS;
  return job.traced ? TRACED_LOOKS : LOOKS;
}

/**
 * The setting with the least weighted sum of squared errors, the greater of a target's ends counting: from the best
 * that was found on the way.
 */
export function nearestOf(job: Job, best: Look, quick: boolean): Look {
  const free = [...best.x.keys()];
  if (free.length === 0 || quick) return best;
  const rounds = job.traced ? 4 : 30;
  const options = { free, low: 0, high: 1, step: job.traced ? 0.01 : 1e-5, rounds, enough: 1e-24 };
  const { x } = descend((y) => job.residual(y, 'greatest'), best.x, options);
  const look = job.look(settle(job, x));
  return look.cost < best.cost ? look : best;
}

/** Knobs that do nothing for it stay where they stood. */
function settle(job: Job, x: Float64Array): Float64Array {
  const { start } = job.bench;
  let best = job.look(x);
  for (const i of x.keys()) {
    if (job.traced || best.x[i] === start[i]) continue;
    const back = Float64Array.from(best.x);
    back[i] = start[i] as number;
    const look = job.look(back);
    if (look.cost <= best.cost * (1 + 1e-9)) best = look;
  }
  return best.x;
}

/** Each knob at its end, with what it would have in the joint solution without limits; none where there is no such. */
export function limitsOf(
  job: Job,
  nearest: Look,
  quick: boolean,
): { readonly limits: Limit[]; readonly reachable: boolean } {
  const free = [...nearest.x.keys()];
  if (free.length === 0) return { limits: [], reachable: false };
  const moved = free.filter((i) => nearest.x[i] !== job.bench.start[i]);
  const [looks, most] = [looksFor(job, quick), 1];
  const search = new Search(job, { looks, most, limited: false, quick, prefer: moved });
  const [joint] = (quick ? search.only(moved) : search.run()).found;
  if (!joint) return { limits: [], reachable: false };
  const limits = free.flatMap((i): Limit[] => {
    const need = needOf(job, i, joint.x[i] as number);
    if (!need) return [];
    return [{ at: job.bench.knobs[i]?.name ?? '', ...need, short: shortOf(need.needs, need.limit) }];
  });
  return { limits, reachable: true };
}

/** Whether targets can be met at all, limits left aside. */
const canBeMet = (bench: Bench, targets: readonly Target[]): boolean => {
  const job = new Job(bench, targets);
  return new Search(job, { looks: looksFor(job), most: 1, limited: false }).run().found.length > 0;
};

/** Pairs of targets of which each can be met, and both cannot, whatever the limits. */
export function contradictionsOf(bench: Bench, targets: readonly Target[]): [string, string][] {
  if (targets.length < 2) return [];
  const alone = targets.map((t) => canBeMet(bench, [t]));
  return targets.flatMap((a, i) =>
    targets.flatMap((b, j): [string, string][] =>
      j > i && alone[i] && alone[j] && !canBeMet(bench, [a, b]) ? [[nameOfTarget(a), nameOfTarget(b)]] : [],
    ),
  );
}
