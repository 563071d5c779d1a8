import type { Graph } from '../graph/graph';
import { upstreamOf, wholeOf } from '../graph/upstream';
import { Arena } from '../native/native';
import { resultOf } from './result';
import { Run, sampleCount } from './run';
import type { SimulateOptions, Simulation } from './types';

const BLOCK = 512;

/** More than any module takes for itself. */
const BUFFERS = 64;

/** Runs a patch over its window, block by block; a loop's modules sample by sample. The block's size changes nothing. */
export function simulateGraph(graph: Graph, options: SimulateOptions = {}): Simulation {
  const upstream = options.only ? upstreamOf(graph, options.only) : wholeOf(graph);
  const size = Math.min(options.blockSize ?? BLOCK, sampleCount(graph.patch.settings.duration, graph.sampleRate));
  return Arena.with((graph.modules.length + 1) * BUFFERS * (size + 2), (arena) =>
    resultOf(new Run(arena, size, upstream, options).all()),
  );
}
