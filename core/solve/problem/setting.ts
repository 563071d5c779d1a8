import { repeatsIn } from '../../bounds/repeats';
import type { BoundsEngine, ModuleBounds } from '../../bounds/bounds';
import type { Repeats } from '../../bounds/repeats';
import { driveFor } from '../../answers/drive';
import { levelRepeats } from '../../answers/levels';
import type { Passed } from '../../bounds/entries';
import type { Graph, GraphModule } from '../../graph/graph';
import { tracksOf } from '../../graph/tracks';
import { constant } from '../../law/affine';
import type { Affine, Range } from '../../law/affine';
import type { Place } from '../../graph/place';
import type { Target } from '../../document/targets';
import { MISSING } from './targetError';
import type { TargetError } from './targetError';
import { arrivalOf, upstreamOfPlace } from '../../simulate/arrival';
import { extremes } from '../../simulate/extremes';

/** A patch with some knobs in other places: its values, ranges and traces. */
export interface Setting {
  readonly graph: Graph;
  value(place: Place): Affine;
  range(x: Affine): Range;
  /** Where hands turn the destination's own knobs: settings that they pass, and the drive at each. */
  passed(place: Place): readonly Passed[] | null;
  /** The error of a target that only a trace tells. */
  traceError(target: Target, m: GraphModule, place: Place, margin?: number): TargetError;
  /** The trace at a place, volts. */
  trace(place: Place): Float64Array;
  /** The range of the trace that arrives, volts; null where nothing upstream remembers, so that it is the drive's own. */
  arriving(place: Place): Range | null;
  readonly sampleRate: number;
  /** Seconds after which it repeats, or null. */
  repeatsEvery(place: Place): number | null;
  /** Seconds after which its level repeats, or null. */
  levelRepeats(place: Place): number | null;
}

/** Runs a graph, and tells what only that tells; the page, which runs nothing, has none of it. */
export interface Runner {
  /** The trace at a place. */
  readonly trace: (graph: Graph, place: Place) => Float64Array;
  /** The error of a target that only a trace tells. */
  readonly error: (target: Target, setting: Setting, m: GraphModule, place: Place, margin?: number) => TargetError;
}

const ZERO = constant(0);

/** Where nobody runs the patch, nothing is seen of it. */
const unrun: Runner = { trace: () => new Float64Array(1), error: () => MISSING };

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

/** How many points of a trace are converted to drives of one setting, with straight lines between them. */
const POINTS = 4096;

/**
 * The trace of a destination as if its own knobs stood where their hands begin: a drive that gives, at each sample, what
 * the destination reads there.
 */
function asOneKnob(graph: Graph, { module, at }: Place, trace: Float64Array, sampleRate: number): Float64Array {
  const m = graph.modules[module];
  if (at.is !== 'end' || !m || m.hands.length === 0 || trace.length < 2) return trace;
  const { spec } = at;
  const tracks = tracksOf(m, sampleRate);
  const step = Math.max(1, Math.ceil(trace.length / POINTS));
  const driveAt = (k: number): number => {
    const params = { ...m.params, ...Object.fromEntries(tracks.map((t) => [t.param, t.at(k)])) };
    const figure = spec.value(params, trace[k] as number);
    return figure === null ? Math.min(0, trace[k] as number) : driveFor(spec, m.params, figure);
  };
  const told = new Float64Array(trace.length);
  let [from, before] = [0, driveAt(0)];
  told[0] = before;
  while (from < trace.length - 1) {
    const to = Math.min(trace.length - 1, from + step);
    const after = driveAt(to);
    for (let k = from + 1; k <= to; k++) told[k] = before + ((after - before) * (k - from)) / (to - from);
    [from, before] = [to, after];
  }
  return told;
}

/** A graph whose bounds an engine has just worked out, as a setting to look at. */
export function settingOf(
  graph: Graph,
  engine: BoundsEngine,
  bounds: ReadonlyMap<string, ModuleBounds>,
  { run = unrun, sampleRate = graph.sampleRate }: { readonly run?: Runner; readonly sampleRate?: number } = {},
): Setting {
  /** What all that arrives at a place has in common. */
  const common = (place: Place, of: (known: Repeats | undefined) => number | null): number | null => {
    const all = repeatsIn(graph, bounds);
    const [first = null, ...others] = feeding(graph, place).map((id) => of(all.get(id)));
    return others.every((x) => x === first) ? first : null;
  };
  return {
    graph,
    range: (x) => engine.range(x),
    value(place) {
      const found = engine.valuesOf(graph.modules[place.module]?.id ?? '');
      if (!found) return ZERO;
      const { is, index } = place.at;
      return (is === 'end' ? found.drives : is === 'input' ? found.inputs : found.outputs)[index] ?? ZERO;
    },
    passed({ module, at }) {
      const id = graph.modules[module]?.id ?? '';
      return at.is === 'end' ? (bounds.get(id)?.ends[at.index]?.passed ?? null) : null;
    },
    traceError(target, m, place, margin) {
      return run.error(target, this, m, place, margin);
    },
    trace: (place) => asOneKnob(graph, place, run.trace(graph, place), sampleRate),
    arriving(place) {
      const upstream = upstreamOfPlace(graph, place, repeatsIn(graph, bounds));
      if (!upstream.memory) return null;
      const trace = this.trace(place);
      return extremes(trace.subarray(arrivalOf(upstream, trace.length, sampleRate).from));
    },
    repeatsEvery: (place) => common(place, (known) => known?.repeatsEvery ?? null),
    levelRepeats: (place) => common(place, levelRepeats),
    sampleRate,
  };
}
