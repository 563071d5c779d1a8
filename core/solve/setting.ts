import { repeatsIn } from '../bounds/repeats';
import type { BoundsEngine, ModuleBounds } from '../bounds/bounds';
import type { Graph } from '../graph/graph';
import { constant } from '../law/lin';
import type { Lin, Range } from '../law/lin';
import type { Place } from '../graph/place';

/** A patch with some knobs in other places: its values, ranges and traces. */
export interface Setting {
  readonly graph: Graph;
  value(place: Place): Lin;
  range(x: Lin): Range;
  /** The trace at a place, volts. */
  trace(place: Place): Float64Array;
  readonly sampleRate: number;
  /** Seconds after which it repeats, or null. */
  repeatsEvery(place: Place): number | null;
}

/** Runs a graph for the trace at a place. */
export type Runner = (graph: Graph, place: Place) => Float64Array;

const ZERO = constant(0);

/** Where nobody runs the patch, nothing is seen of it. */
const unrun: Runner = () => new Float64Array(1);

/** The modules whose movement arrives at a place. */
function feeding(graph: Graph, { module, at }: Place): string[] {
  const m = graph.modules[module];
  if (!m || at.is === 'output') return m ? [m.id] : [];
  const inputs =
    at.is === 'input'
      ? m.inputs.filter((_, i) => i === at.index)
      : m.inputs.filter((s) => at.spec.sockets.includes(s.spec.name));
  return inputs.flatMap(({ driver }) => (driver.type === 'output' ? [graph.modules[driver.module]?.id ?? ''] : []));
}

/** A graph whose bounds an engine has just worked out, as a setting to look at. */
export function settingOf(
  graph: Graph,
  engine: BoundsEngine,
  bounds: ReadonlyMap<string, ModuleBounds>,
  { run = unrun, sampleRate = graph.sampleRate }: { readonly run?: Runner; readonly sampleRate?: number } = {},
): Setting {
  return {
    graph,
    range: (x) => engine.range(x),
    value(place) {
      const found = engine.valuesOf(graph.modules[place.module]?.id ?? '');
      if (!found) return ZERO;
      const { is, index } = place.at;
      return (is === 'end' ? found.drives : is === 'input' ? found.inputs : found.outputs)[index] ?? ZERO;
    },
    trace: (place) => run(graph, place),
    repeatsEvery(place) {
      const all = repeatsIn(graph, bounds);
      const every = feeding(graph, place).map((id) => all.get(id)?.repeatsEvery ?? null);
      return every.length > 0 && every.every((x) => x === every[0]) ? (every[0] ?? null) : null;
    },
    sampleRate,
  };
}
