import { feedsOf } from '../graph/feeds';
import type { Graph, GraphModule } from '../graph/graph';
import type { Place } from '../graph/place';
import type { Repeats } from '../bounds/repeats';
import { slowerOf, slowSeconds } from '../bounds/slow';
import { settleFrom } from './stats';

/**
 * What the range that arrives is taken from: the guaranteed range where nothing upstream remembers; else what was
 * simulated, of the last whole period, of the second half of the window behind a draw, or of all of a window that is
 * too short for the period.
 */
export type ArrivesBy = 'bound' | 'settled' | 'seen' | 'short';

export interface Arrival {
  readonly by: ArrivesBy;
  /** The first sample of the window that counts. */
  readonly from: number;
}

/** What is upstream of a place, as far as it decides what arrives there. */
export type Upstream = Pick<Repeats, 'memory' | 'drawn' | 'slow'>;

const NOTHING: Upstream = { memory: false, drawn: false, slow: 'none' };

/** Several feeds of one place, taken together. */
const together = (all: readonly Upstream[]): Upstream =>
  all.reduce(
    (a, b) => ({ memory: a.memory || b.memory, drawn: a.drawn || b.drawn, slow: slowerOf(a.slow, b.slow) }),
    NOTHING,
  );

/**
 * Of a place with this upstream: which part of a window counts for the range that arrives.
 *
 * @param samples of the whole window. @param sampleRate samples a second.
 */
export function arrivalOf({ memory, drawn, slow }: Upstream, samples: number, sampleRate: number): Arrival {
  if (!memory) return { by: 'bound', from: 0 };
  const half = Math.floor(samples / 2);
  if (drawn) return { by: 'seen', from: half };
  const every = slowSeconds(slow);
  if (every !== null && every * sampleRate > samples / 2) return { by: 'short', from: 0 };
  return { by: 'settled', from: settleFrom(every, samples, sampleRate) };
}

/** What is upstream of a place that a target may be at. */
export function upstreamOfPlace(graph: Graph, { module, at }: Place, known: ReadonlyMap<string, Upstream>): Upstream {
  const m = graph.modules[module];
  if (!m) return NOTHING;
  if (at.is === 'output') return known.get(m.id) ?? NOTHING;
  return upstreamAt(graph, m, at.is === 'end' ? at.spec.sockets : [m.inputs[at.index]?.spec.name ?? ''], known);
}

/** What feeds some inputs of a module, taken together: its own memory is no part of it. */
export function upstreamAt(
  graph: Graph,
  m: GraphModule,
  sockets: readonly string[],
  repeats: ReadonlyMap<string, Upstream>,
): Upstream {
  return together(feedsOf(graph, m, sockets).map((from) => repeats.get(from.id) ?? NOTHING));
}
