import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { simulateGraph } from './simulate';
import type { SimulateOptions, Simulation } from './types';

/**
 * Runs a patch over its window.
 *
 * @param patch a patch from `parsePatch`.
 * @returns measures of every socket in volts, and the whole traces of the sockets asked for.
 */
export const simulate = (patch: Patch, options: SimulateOptions = {}): Simulation =>
  simulateGraph(buildGraph(patch), options);
