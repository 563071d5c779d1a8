import type { ModuleBounds } from '../bounds/bounds';
import type { Graph } from '../graph/graph';
import { repeatsIn } from '../bounds/repeats';
import type { Repeats } from '../bounds/repeats';
import type { Range } from '../law/affine';
import { Arrivals } from './arrivals';
import type { ArrivesBy } from '../simulate/arrival';
import { readingsOf } from './readings';
import type { Reading } from './readings';
import type { Measured, OutputSeen, Simulation } from '../simulate/types';

export interface SocketPrediction {
  /** The guaranteed range, volts. */
  readonly bound: Range;
  /** What the simulated window reached, volts. */
  readonly seen?: Range;
  /** What it reaches once the start has passed, where that differs from `seen` by over 1% of its span, volts. */
  readonly settled?: Range;
  /** What people see first: the range that arrives once the start has passed, volts, and what it is taken from. */
  readonly arrives: Range;
  readonly arrivesBy: ArrivesBy;
  readonly mean?: number;
  readonly rms?: number;
  readonly repeatsEvery: number | null;
  /** What was seen is all that can happen, up to the sampling. */
  readonly exact: boolean;
}

/** What is known of a patch but its findings. */
export interface Glance {
  readonly outputs: Readonly<Record<string, SocketPrediction>>;
  readonly inputs: Readonly<Record<string, SocketPrediction>>;
  readonly readings: readonly Reading[];
}

/** Differences below this share of the span are not shown. */
const SETTLED_SHARE = 0.01;

function settledOf(
  seen: OutputSeen | undefined,
  known: Repeats | undefined,
  duration: number,
): Pick<SocketPrediction, 'settled'> {
  if (!seen || !known?.memory || known.drawn || (known.repeatsEvery ?? 0) > duration / 2) return {};
  const [lo, hi] = seen.settled;
  const apart = Math.max(Math.abs(lo - seen.min), Math.abs(hi - seen.max));
  return apart > SETTLED_SHARE * (seen.max - seen.min) ? { settled: seen.settled } : {};
}

/** The same without findings, for while a knob is turned. */
export function glance(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null = null,
): Glance {
  const repeats = repeatsIn(graph, bounds);
  const { duration } = graph.patch.settings;
  const arrivals = new Arrivals(graph, bounds, simulation);
  const socket = (
    bound: Range,
    seen: Measured | undefined,
    known: Repeats | undefined,
    source: OutputSeen | undefined,
    by: ArrivesBy,
  ): SocketPrediction => ({
    bound,
    ...(seen && { seen: [seen.min, seen.max] as const, mean: seen.mean, rms: seen.rms }),
    ...settledOf(source, known, duration),
    ...(source && by !== 'bound'
      ? { arrives: source.arrives, arrivesBy: by }
      : { arrives: bound, arrivesBy: 'bound' as const }),
    repeatsEvery: known?.repeatsEvery ?? null,
    exact: known !== undefined && known.exactFrom !== null && known.exactFrom <= duration,
  });
  const steady: Repeats = { repeatsEvery: null, exactFrom: 0, memory: false, drawn: false, slow: 'none' };
  const outputs = new Map<string, SocketPrediction>();
  const inputs = new Map<string, SocketPrediction>();
  for (const m of graph.modules) {
    const found = bounds.get(m.id) as ModuleBounds;
    m.outputs.forEach((o, i) => {
      const seen = simulation?.outputs.get(o.socket);
      outputs.set(o.socket, socket(found.outputs[i] as Range, seen, repeats.get(m.id), seen, arrivals.atOutputs(m)));
    });
    m.inputs.forEach((s, i) => {
      if (!s.connected) return;
      const from = s.driver.type === 'output' ? graph.modules[s.driver.module] : undefined;
      const known = s.driver.type === 'output' ? repeats.get(from?.id ?? '') : steady;
      const source = s.driver.type === 'output' ? (from?.outputs[s.driver.output]?.socket ?? '') : '';
      const seen = simulation?.inputs.get(s.socket);
      const by = arrivals.atInputs(m, [s.spec.name]);
      inputs.set(s.socket, socket(found.inputs[i] as Range, seen, known, simulation?.outputs.get(source), by));
    });
  }
  return {
    outputs: Object.fromEntries(outputs),
    inputs: Object.fromEntries(inputs),
    readings: readingsOf(graph, bounds, simulation),
  };
}
