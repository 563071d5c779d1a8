import { buildGraph } from '../../graph/graph';
import { needsTrace } from '../problem/errorOf';
import { readingFor } from '../../answers/readings';
import type { Patch } from '../../document/types';
import { targetSockets } from '../../document/targets';
import type { Target } from '../../document/targets';
import { LEAST_DRAWS, tolerance } from '../../answers/tolerance';
import type { Spread } from '../types';

/** The 5 and 95% values of what targets are at, with the usual errors. */
export function toleranceAt(patch: Patch, targets: readonly Target[], draws = LEAST_DRAWS): Spread[] {
  // What arrives behind something that remembers would have to be run for every draw.
  const graph = buildGraph(patch);
  if (targets.some((t) => needsTrace(graph, t))) return [];
  const wanted = { ...patch, targets };
  const { readings } = tolerance(wanted, {
    draws,
    rough: draws < LEAST_DRAWS,
    only: targetSockets(targets),
    plain: true,
    // What only runs tell was left out above: the figures of all others are of the guaranteed range.
    bounded: true,
  });
  const about = new Set(targets.map((t) => readingFor(readings, t)));
  return readings
    .filter((r) => about.has(r))
    .map(({ at: socket, low, high, unit }) => ({ at: socket, low, high, unit }));
}
