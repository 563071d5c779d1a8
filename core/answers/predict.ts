import { BoundsEngine } from '../bounds/bounds';
import { boundsOverFaders } from '../bounds/faders';
import type { ModuleBounds } from '../bounds/bounds';
import type { Patch } from '../document/types';
import { findingsOf, watchersOf } from '../findings';
import type { Evidence, Finding, Found, KnobFinder } from '../findings/finding';
import { checkedCures, uncured } from '../findings/promise';
import { glance } from './glance';
import type { Glance } from './glance';
import { withFaderReach } from './faderReach';
import { levelsOf, levelWatchers } from './levels';
import type { Levels } from './levels';
import { noiseOf, noiseWatchers } from './noise';
import type { Noise } from './noise';
import { arrivalWatchers } from './timeToArrive';
import type { TimeToArrive } from './timeToArrive';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { simulateGraph, workOf } from '../simulate/simulate';
import type { SimulateOptions, Simulation } from '../simulate/types';

export interface Prediction extends Glance {
  readonly findings: readonly Finding[];
  /** Level over time at every output that carries sound, and what amplifiers take away; none without a simulation. */
  readonly levels?: Levels['levels'];
  readonly reductionDb?: Levels['reductionDb'];
  /** What the patch adds of its own at each line output; none without a simulation. */
  readonly noise?: Readonly<Record<string, Noise>>;
  /** How long steps take behind each lag, by its output; none without a simulation. */
  readonly arriveSeconds?: Readonly<Record<string, TimeToArrive>>;
  /** How much of the window was looked at: less than its duration only in very large patches. */
  readonly seenSeconds?: number;
}

export interface PredictOptions {
  /** Without it there is no `seen`, no mean, no finding that needs a trace, and no cure. */
  readonly simulation?: boolean;
  /** Without them the findings stand alone, which takes no checking. */
  readonly cures?: boolean;
  readonly asset?: SimulateOptions['asset'];
  /** Solves for the knobs of a cure where a finding has none of its own. */
  readonly finder?: KnobFinder;
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
  return {
    ...prediction,
    findings: checkedCures(within.patch, found, { ...asset, ...(options.finder && { finder: options.finder }) }),
  };
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
  const [levels, arrivals, gains] = [levelWatchers(graph), arrivalWatchers(graph), noiseWatchers(graph)];
  const observers = [...watched.values()].flat();
  const simulation = simulateGraph(graph, {
    ...options,
    bounds,
    observers: [...observers, ...levels, ...arrivals, ...gains],
  });
  const { prediction, found } = gather(graph, bounds, simulation, watched);
  const arriveSeconds = Object.fromEntries(
    arrivals.flatMap((w) => {
      const told = w.told(graph.sampleRate);
      return told ? [[w.socket, told] as const] : [];
    }),
  );
  return {
    prediction: {
      ...prediction,
      ...levelsOf(graph, bounds, levels),
      arriveSeconds,
      noise: noiseOf(graph, simulation, gains),
    },
    found,
    simulation,
  };
}

/** Puts together what bounds and simulation found. */
function gather(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null,
  watched: Evidence['watched'] = new Map(),
): { prediction: Prediction; found: readonly Found[] } {
  const overFaders = boundsOverFaders(graph, bounds);
  const found = findingsOf({ graph, bounds, overFaders, simulation, watched });
  const seen = glance(graph, bounds, simulation);
  const readings = withFaderReach(graph, seen.readings, overFaders);
  const seconds = simulation ? { seenSeconds: graph.patch.settings.duration } : {};
  return { prediction: { ...seen, readings, findings: uncured(found), ...seconds }, found };
}
