import type { Rack } from '../document/rackTypes';
import type { Patch } from '../document/types';
import { planChain } from './plan';
import type { Proposal } from './plan';
import type { EndsRequest } from './request';

export interface EndsPlan {
  /** The chain chosen for each end, in their order; null where there is none at all. */
  readonly ends: readonly (Proposal | null)[];
  readonly patch: Patch;
  readonly met: boolean;
}

/** How many ends of a plan are met. */
const metOf = (plan: EndsPlan): number => plan.ends.filter((e) => e?.met).length;

/** One after another, in an order; each in what the ones before have left. */
function inOrder({ patch, from, ends, stages }: EndsRequest, order: readonly number[], rack: Rack | null): EndsPlan {
  let now = patch;
  const found: (Proposal | null)[] = ends.map(() => null);
  for (const index of order) {
    const end = ends[index];
    if (!end) continue;
    const { proposals } = planChain({ ...end, patch: now, from, ...(stages && { stages }) }, rack);
    const [best] = proposals;
    if (!best) continue;
    found[index] = best;
    now = best.patch;
  }
  return { ends: found, patch: now, met: found.every((e) => e?.met) };
}

/**
 * Chains from one source to several ends, in one patch: in the order given, and where that leaves one without, with
 * that one first.
 */
export function planEnds(request: EndsRequest, rack: Rack | null = null): EndsPlan {
  const order = request.ends.map((_, i) => i);
  const first = inOrder(request, order, rack);
  if (first.met) return first;
  const missed = order.filter((i) => !first.ends[i]?.met);
  const second = inOrder(request, [...missed, ...order.filter((i) => !missed.includes(i))], rack);
  return metOf(second) > metOf(first) ? second : first;
}
