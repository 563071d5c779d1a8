import { BoundsEngine } from './bounds/bounds';
import type { ModuleBounds } from './bounds/bounds';
import type { Patch } from './document/types';
import { findingsOf, watchersOf } from './findings';
import type { Evidence, Finding, Found } from './findings/finding';
import { checkedCures, uncured } from './findings/promise';
import { buildGraph } from './graph/graph';
import type { Graph } from './graph/graph';
import { repeatsIn } from './graph/repeats';
import type { Repeats } from './graph/repeats';
import type { Range } from './law/lin';
import { readingsOf } from './readings';
import type { Reading } from './readings';
import { simulateGraph, workOf } from './simulate/simulate';
import type { Measured, OutputSeen, SimulateOptions, Simulation } from './simulate/types';

export interface SocketPrediction {
  /** Can never be left, volts. */
  readonly bound: Range;
  /** What the simulated window reached, volts. */
  readonly seen?: Range;
  /** What it reaches once the start has passed, where that differs from `seen` by over 1 % of its span, volts. */
  readonly settled?: Range;
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
  /** How much of the window was looked at: less than its duration only in very large patches. */
  readonly seenSeconds?: number;
}

export interface PredictOptions {
  /** Without it there is no `seen`, no mean, no finding that needs a trace, and no cure. */
  readonly simulation?: boolean;
  /** Without them the findings stand alone, which takes no checking. */
  readonly cures?: boolean;
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
  if (options.simulation === false) return gather(graph, bounds, null).prediction;
  const asset = options.asset ? { asset: options.asset } : {};
  const within = withinReach(graph);
  const { prediction, found } = predictGraph(within, bounds, asset);
  if (options.cures === false) return prediction;
  return { ...prediction, findings: checkedCures(within.patch, found, asset) };
}

/** Modules times samples that a prediction looks at, at most: a few seconds of work. A count, not a time. */
const MOST_WORK = 5e7;

/** The graph with as much of its window as a prediction takes the time for. */
function withinReach(graph: Graph): Graph {
  const { settings } = graph.patch;
  const work = workOf(graph);
  if (work <= MOST_WORK) return graph;
  const duration = Math.max(0.01, Math.floor((1000 * settings.duration * MOST_WORK) / work) / 1000);
  return { ...graph, patch: { ...graph.patch, settings: { ...settings, duration } } };
}

/**
 * Simulates with all that the findings must watch, and gathers; the simulation comes back for its traces and pictures,
 * what was found for `checkedCures`: the prediction itself has its findings without cures.
 */
export function predictGraph(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  options: SimulateOptions,
): { prediction: Prediction; simulation: Simulation; found: readonly Found[] } {
  const watched = watchersOf(graph);
  const simulation = simulateGraph(graph, { ...options, bounds, observers: [...watched.values()].flat() });
  return { ...gather(graph, bounds, simulation, watched), simulation };
}

/** Puts together what bounds and simulation found. */
function gather(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null,
  watched: Evidence['watched'] = new Map(),
): { prediction: Prediction; found: readonly Found[] } {
  const found = findingsOf({ graph, bounds, simulation, watched });
  const seconds = simulation ? { seenSeconds: graph.patch.settings.duration } : {};
  return { prediction: { ...glance(graph, bounds, simulation), findings: uncured(found), ...seconds }, found };
}

/** Nothing is said of a difference below this share of the span. */
const SETTLED_SHARE = 0.01;

function settledOf(seen: OutputSeen | undefined, known: Repeats | undefined): Pick<SocketPrediction, 'settled'> {
  if (!seen || !known?.memory || known.drawn) return {};
  const [lo, hi] = seen.settled;
  const apart = Math.max(Math.abs(lo - seen.min), Math.abs(hi - seen.max));
  return apart > SETTLED_SHARE * (seen.max - seen.min) ? { settled: seen.settled } : {};
}

/** The same without findings, for while a knob is turned. */
export function glance(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null = null,
): Omit<Prediction, 'findings'> {
  const repeats = repeatsIn(graph, bounds);
  const { duration } = graph.patch.settings;
  const socket = (
    bound: Range,
    seen: Measured | undefined,
    known: Repeats | undefined,
    source: OutputSeen | undefined,
  ): SocketPrediction => ({
    bound,
    ...(seen && { seen: [seen.min, seen.max] as const, mean: seen.mean, rms: seen.rms }),
    ...settledOf(source, known),
    repeatsEvery: known?.repeatsEvery ?? null,
    exact: known !== undefined && known.exactFrom !== null && known.exactFrom <= duration,
  });
  const steady: Repeats = { repeatsEvery: null, exactFrom: 0, memory: false, drawn: false };
  const outputs = new Map<string, SocketPrediction>();
  const inputs = new Map<string, SocketPrediction>();
  for (const m of graph.modules) {
    const found = bounds.get(m.id) as ModuleBounds;
    m.outputs.forEach((o, i) => {
      const seen = simulation?.outputs.get(o.socket);
      outputs.set(o.socket, socket(found.outputs[i] as Range, seen, repeats.get(m.id), seen));
    });
    m.inputs.forEach((s, i) => {
      if (!s.connected) return;
      const from = s.driver.type === 'output' ? graph.modules[s.driver.module] : undefined;
      const known = s.driver.type === 'output' ? repeats.get(from?.id ?? '') : steady;
      const source = s.driver.type === 'output' ? (from?.outputs[s.driver.output]?.socket ?? '') : '';
      const seen = simulation?.inputs.get(s.socket);
      inputs.set(s.socket, socket(found.inputs[i] as Range, seen, known, simulation?.outputs.get(source)));
    });
  }
  return {
    outputs: Object.fromEntries(outputs),
    inputs: Object.fromEntries(inputs),
    readings: readingsOf(graph, bounds, simulation),
  };
}
