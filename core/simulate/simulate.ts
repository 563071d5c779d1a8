import type { Graph } from '../graph/graph';
import { repeatsIn } from '../bounds/repeats';
import { upstreamOf, wholeOf } from '../graph/upstream';
import { Arena } from '../native/native';
import { resultOf } from './result';
import { Run, sampleCount } from './run';
import type { SimulateOptions, Simulation } from './types';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';

const BLOCK = 512;

/** More than any module takes for itself. */
const BUFFERS = 64;

/** How much longer a loop's modules take, run sample by sample. */
const LOOP_FACTOR = 32;

/** How much a simulation is to do: modules times samples, those of loops by what they take. */
export function workOf(graph: Graph, runs: (index: number) => boolean = () => true): number {
  const samples = sampleCount(graph.patch.settings.duration, graph.sampleRate);
  return graph.groups.reduce((sum, { loop, modules }) => {
    return sum + modules.filter(runs).length * (loop ? LOOP_FACTOR : 1) * samples;
  }, 0);
}

/** Runs a patch over its window, block by block; a loop's modules sample by sample. The block's size changes nothing. */
export function simulateGraph(graph: Graph, options: SimulateOptions = {}): Simulation {
  const { bounds } = options;
  const repeats = options.repeats ?? (bounds && repeatsIn(graph, bounds));
  const all = repeats ? { ...options, repeats } : options;
  const upstream = options.only ? upstreamOf(graph, options.only) : wholeOf(graph);
  const size = Math.min(options.blockSize ?? BLOCK, sampleCount(graph.patch.settings.duration, graph.sampleRate));
  return Arena.with((graph.modules.length + 1) * BUFFERS * (size + 2), (arena) =>
    resultOf(new Run(arena, size, upstream, all).all()),
  );
}

/**
 * Runs a patch over its window.
 *
 * @param patch a patch from `parsePatch`.
 * @returns measures of every socket in volts, and the whole traces of the sockets asked for.
 */
export const simulate = (patch: Patch, options: SimulateOptions = {}): Simulation =>
  simulateGraph(buildGraph(patch), options);
