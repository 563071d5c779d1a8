import { fractionOf, over, times, toNumber } from '../units/fraction';
import type { Fraction } from '../units/fraction';
import { BoundsEngine } from './bounds';
import type { ModuleBounds } from './bounds';
import { commonCycle, slowerOf } from './slow';
import type { Cycle } from './slow';
import type { Graph, GraphModule } from '../graph/graph';
import { isLinearIn, tracksOf } from '../graph/tracks';

/** Longer than this does not count as repeating, seconds. */
const LONGEST = 3600;

export interface Repeats {
  /** Seconds, or null: constants alone, or it never does. */
  readonly repeatsEvery: number | null;
  /** A window of this many seconds or more holds all that can ever happen. */
  readonly exactFrom: number | null;
  /** Something upstream depends on what was before. */
  readonly memory: boolean;
  /** Something upstream draws. */
  readonly drawn: boolean;
  /** How its movement repeats that is slower than sound. */
  readonly slow: Cycle;
}

interface Known {
  readonly cycle: Cycle;
  readonly slow: Cycle;
  readonly memory: boolean;
  readonly drawn: boolean;
}

/** With hands on its knobs it repeats only where all of them loop, and nothing else hangs on where they are. */
function withHands(m: GraphModule, alone: Cycle): Cycle {
  const moving = m.hands.filter((h) => new Set(h.points.map((p) => p.value)).size > 1);
  if (moving.length === 0) return alone;
  if (!isLinearIn(m, tracksOf(m, 1))) return 'never';
  return moving.reduce<Cycle>((c, h) => commonCycle(c, h.loop ? fractionOf(h.points.at(-1)?.t ?? 0) : 'never'), alone);
}

const product = (xs: readonly number[]): Fraction => xs.map(fractionOf).reduce(times, { n: 1n, d: 1n });

/**
 * How each module's outputs repeat, from the periods of the sources upstream as exact fractions.
 *
 * @param steady the voltage of an input that can never change, else null.
 */
export function repeatsOf(
  graph: Graph,
  steady: (m: GraphModule, input: string) => number | null,
): Map<string, Repeats> {
  const known = new Map<number, Known>();
  const own = (m: GraphModule): Known => {
    const connected = (name: string): boolean => m.inputs.find((s) => s.spec.name === name)?.connected ?? false;
    const around = { steady: (name: string) => steady(m, name), connected, bpm: graph.patch.settings.bpm };
    const period = m.kind.source?.period?.(m.params, around) ?? 'none';
    const alone = typeof period === 'string' ? period : over(product(period.over), product(period.under));
    const cycle = withHands(m, alone);
    return {
      cycle,
      slow: cycle,
      memory: m.kind.memory(m.params, connected),
      drawn: m.kind.source?.draws?.(m.params) ?? false,
    };
  };
  const upstream = (m: GraphModule): Known => {
    let { cycle, slow, memory, drawn } = own(m);
    for (const { driver, spec } of m.inputs) {
      const from = driver.type === 'output' ? known.get(driver.module) : undefined;
      if (!from) continue;
      const by = m.kind.source?.repeatsTimes?.(m.params, spec.name) ?? 1;
      const fed = (c: Cycle): Cycle => (typeof c === 'string' || by === 1 ? c : times(c, fractionOf(by)));
      cycle = commonCycle(cycle, fed(from.cycle));
      slow = slowerOf(slow, fed(from.slow));
      memory ||= from.memory;
      drawn ||= from.drawn;
    }
    return { cycle, slow, memory, drawn };
  };
  for (const group of graph.groups) {
    const members = group.modules.map((i) => graph.modules[i] as GraphModule);
    if (!group.loop) members.forEach((m) => known.set(m.index, upstream(m)));
    else {
      // All in a loop depend on all of it, and on what was before: it need not repeat although its sources do.
      const drawn = members.some((m) => upstream(m).drawn);
      members.forEach((m) => known.set(m.index, { cycle: 'never', slow: 'never', memory: true, drawn }));
    }
  }
  return new Map([...known].map(([index, of]) => [(graph.modules[index] as GraphModule).id, answer(of)]));
}

function answer({ cycle, slow, memory, drawn }: Known): Repeats {
  const known = { memory, drawn, slow };
  if (cycle === 'none') return { repeatsEvery: null, exactFrom: memory ? null : 0, ...known };
  const seconds = cycle === 'never' ? Infinity : toNumber(cycle);
  if (seconds > LONGEST) return { repeatsEvery: null, exactFrom: null, ...known };
  return { repeatsEvery: seconds, exactFrom: memory ? null : seconds, ...known };
}

/** Whether what arrives at each module's outputs depends on what was before, by its id; worked out once for a graph. */
const remembering = new WeakMap<Graph, ReadonlyMap<string, Repeats>>();

/** How a graph repeats as far as no bounds are needed for it: what remembers, and what draws. */
export function memoryIn(graph: Graph): ReadonlyMap<string, Pick<Repeats, 'memory' | 'drawn' | 'slow'>> {
  const before = remembering.get(graph);
  if (before) return before;
  const now = repeatsOf(graph, () => null);
  remembering.set(graph, now);
  return now;
}

const found = new WeakMap<ReadonlyMap<string, ModuleBounds>, Map<string, Repeats>>();

/** The same, where what can never change is known from the bounds of this very graph; worked out once for them. */
export function repeatsIn(graph: Graph, bounds: ReadonlyMap<string, ModuleBounds>): ReadonlyMap<string, Repeats> {
  const before = found.get(bounds);
  if (before) return before;
  const now = repeatsOf(graph, (m, name) => {
    const [lo, hi] = bounds.get(m.id)?.inputs[m.inputs.findIndex((s) => s.spec.name === name)] ?? [0, 0];
    return lo === hi ? lo : null;
  });
  found.set(bounds, now);
  return now;
}

/** The same, by bounds worked out for the graph alone. */
export const graphRepeats = (graph: Graph): ReadonlyMap<string, Repeats> =>
  repeatsIn(graph, new BoundsEngine().run(graph));
