import { commonMultiple, fractionOf, over, times, toNumber } from '../units/fraction';
import type { Fraction } from '../units/fraction';
import type { Graph, GraphModule } from './graph';

/** Longer than this does not count as repeating, seconds. */
const LONGEST = 3600;

export interface Repeats {
  /** Seconds, or null: constants alone, or it never does. */
  readonly repeatsEvery: number | null;
  /** A window of this many seconds or more holds all that can ever happen. */
  readonly exactFrom: number | null;
}

type Cycle = 'none' | 'never' | Fraction;

interface Known {
  readonly cycle: Cycle;
  readonly memory: boolean;
}

function common(a: Cycle, b: Cycle): Cycle {
  if (a === 'never' || b === 'never') return 'never';
  if (a === 'none') return b;
  if (b === 'none') return a;
  return commonMultiple(a, b);
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
    const period = m.kind.period?.(m.params, (name) => steady(m, name)) ?? 'none';
    const cycle = typeof period === 'string' ? period : over(product(period.over), product(period.under));
    return { cycle, memory: m.kind.memory(m.params, connected) };
  };
  const upstream = (m: GraphModule): Known => {
    let { cycle, memory } = own(m);
    for (const { driver, spec } of m.inputs) {
      const from = driver.type === 'output' ? known.get(driver.module) : undefined;
      if (!from) continue;
      const by = m.kind.repeatsTimes?.(m.params, spec.name) ?? 1;
      const fed = typeof from.cycle === 'string' || by === 1 ? from.cycle : times(from.cycle, fractionOf(by));
      cycle = common(cycle, fed);
      memory ||= from.memory;
    }
    return { cycle, memory };
  };
  for (const group of graph.groups) {
    const members = group.modules.map((i) => graph.modules[i] as GraphModule);
    if (!group.loop) members.forEach((m) => known.set(m.index, upstream(m)));
    else {
      // All in a loop depend on all of it, and on what was before.
      const cycle = members.map((m) => upstream(m).cycle).reduce(common, 'none');
      members.forEach((m) => known.set(m.index, { cycle, memory: true }));
    }
  }
  return new Map(graph.modules.map((m) => [m.id, answer(known.get(m.index) as Known)]));
}

function answer({ cycle, memory }: Known): Repeats {
  if (cycle === 'none') return { repeatsEvery: null, exactFrom: memory ? null : 0 };
  const seconds = cycle === 'never' ? Infinity : toNumber(cycle);
  if (seconds > LONGEST) return { repeatsEvery: null, exactFrom: null };
  return { repeatsEvery: seconds, exactFrom: memory ? null : seconds };
}
