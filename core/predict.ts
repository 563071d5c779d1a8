import { BoundsEngine } from './bounds/bounds';
import type { ModuleBounds } from './bounds/bounds';
import type { Patch } from './document/types';
import { findingsOf, watchersOf } from './findings';
import type { Evidence, Finding } from './findings/finding';
import { buildGraph } from './graph/graph';
import type { Graph } from './graph/graph';
import { repeatsOf } from './graph/repeats';
import type { Repeats } from './graph/repeats';
import type { Range } from './law/lin';
import { readingsOf } from './readings';
import type { Reading } from './readings';
import { simulateGraph } from './simulate/simulate';
import type { Measured, SimulateOptions, Simulation } from './simulate/types';

export interface SocketPrediction {
  /** Can never be left, volts. */
  readonly bound: Range;
  /** What the simulated window reached, volts. */
  readonly seen?: Range;
  readonly mean?: number;
  readonly rms?: number;
  readonly repeatsEvery: number | null;
  /** What was seen is all that can happen, up to the sampling. */
  readonly exact: boolean;
}

export interface Prediction {
  readonly outputs: Readonly<Record<string, SocketPrediction>>;
  readonly inputs: Readonly<Record<string, SocketPrediction>>;
  readonly readings: readonly Reading[];
  readonly findings: readonly Finding[];
}

export interface PredictOptions {
  /** Without it there is no `seen`, no mean, and no finding that needs a trace. */
  readonly simulation?: boolean;
  readonly asset?: SimulateOptions['asset'];
  /** Keeps what it found from one call to the next. */
  readonly engine?: BoundsEngine;
}

/**
 * Bounds, seen ranges, readings and findings of a patch.
 *
 * @param patch a patch from `parsePatch`.
 * @returns for each output, and each input that carries something: volts; for each destination: its own unit.
 */
export function predict(patch: Patch, options: PredictOptions = {}): Prediction {
  const graph = buildGraph(patch);
  const bounds = (options.engine ?? new BoundsEngine()).run(graph);
  if (options.simulation === false) return gather(graph, bounds, null);
  return predictGraph(graph, bounds, options.asset ? { asset: options.asset } : {}).prediction;
}

/** Simulates with all that the findings must watch, and gathers; the simulation comes back for its traces and pictures. */
export function predictGraph(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  options: SimulateOptions,
): { prediction: Prediction; simulation: Simulation } {
  const watched = watchersOf(graph);
  const simulation = simulateGraph(graph, { ...options, bounds, observers: [...watched.values()].flat() });
  return { prediction: gather(graph, bounds, simulation, watched), simulation };
}

/** Puts together what bounds and simulation found. */
function gather(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null,
  watched: Evidence['watched'] = new Map(),
): Prediction {
  const seen = glance(graph, bounds, simulation);
  return { ...seen, findings: findingsOf({ graph, bounds, simulation, watched }) };
}

/** The same without findings, for while a knob is turned. */
export function glance(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null = null,
): Omit<Prediction, 'findings'> {
  const repeats = repeatsOf(graph, (m, name) => {
    const [lo, hi] = bounds.get(m.id)?.inputs[m.inputs.findIndex((s) => s.spec.name === name)] ?? [0, 0];
    return lo === hi ? lo : null;
  });
  const { duration } = graph.patch.settings;
  const socket = (bound: Range, seen: Measured | undefined, known: Repeats | undefined): SocketPrediction => ({
    bound,
    ...(seen && { seen: [seen.min, seen.max] as const, mean: seen.mean, rms: seen.rms }),
    repeatsEvery: known?.repeatsEvery ?? null,
    exact: known !== undefined && known.exactFrom !== null && known.exactFrom <= duration,
  });
  const steady: Repeats = { repeatsEvery: null, exactFrom: 0 };
  const outputs = new Map<string, SocketPrediction>();
  const inputs = new Map<string, SocketPrediction>();
  for (const m of graph.modules) {
    const found = bounds.get(m.id) as ModuleBounds;
    m.outputs.forEach((o, i) =>
      outputs.set(o.socket, socket(found.outputs[i] as Range, simulation?.outputs.get(o.socket), repeats.get(m.id))),
    );
    m.inputs.forEach((s, i) => {
      if (!s.connected) return;
      const source = s.driver.type === 'output' ? repeats.get(graph.modules[s.driver.module]?.id ?? '') : steady;
      inputs.set(s.socket, socket(found.inputs[i] as Range, simulation?.inputs.get(s.socket), source));
    });
  }
  return {
    outputs: Object.fromEntries(outputs),
    inputs: Object.fromEntries(inputs),
    readings: readingsOf(graph, bounds, simulation),
  };
}
