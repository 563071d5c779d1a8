import { BoundsEngine } from '../../bounds/bounds';
import type { Patch } from '../../document/types';
import { buildGraph } from '../../graph/graph';
import { Simulator } from '../../simulate/simulator';
import type { Simulation, SimulateOptions } from '../../simulate/types';
import type { Graph } from '../../graph/graph';
import type { Place } from '../../graph/place';
import type { Runner, Setting } from './setting';
import { traceError } from './traceError';
import { standingsIn } from './standing';
import type { TargetStanding } from './standing';
import { lookedAt } from './trials';
import type { TrialOptions } from './trials';

type RunOptions = Pick<TrialOptions, 'sampleRate'> & { readonly asset?: SimulateOptions['asset'] };

/**
 * Makes what runs one patch after another, each of them for one trace after another: of a patch and a place once, and
 * again only what differs from the patch before.
 */
export function runnersOf({ asset, sampleRate }: RunOptions = {}): () => Runner {
  const simulators = new Map<string, Simulator>();
  const simulated = (graph: Graph, { socket, at }: Place): Simulation => {
    const key = `${at.is} ${socket}`;
    const simulator = simulators.get(key) ?? new Simulator();
    simulators.set(key, simulator);
    const rated = sampleRate === undefined ? graph : { ...graph, sampleRate };
    const ask = at.is === 'end' ? { drives: [socket] } : { traces: [socket] };
    return simulator.run(rated, { ...ask, only: [socket], sparing: true, ...(asset && { asset }) });
  };
  return () => {
    const traces = new Map<string, Float64Array>();
    const trace = (graph: Graph, place: Place): Float64Array => {
      const { socket, at } = place;
      const key = `${at.is} ${socket}`;
      const known = traces.get(key);
      if (known) return known;
      const simulation = simulated(graph, place);
      const found = (at.is === 'end' ? simulation.drives : simulation.traces).get(socket) ?? new Float64Array(1);
      traces.set(key, found);
      return found;
    };
    return { trace, error: traceError };
  };
}

/** A patch as it stands, run and looked at from the start: what a claim rests on. */
export function settledAs(patch: Patch, options: Omit<TrialOptions, 'runner'> & RunOptions = {}): Setting {
  const engine = new BoundsEngine(options.closeness);
  return lookedAt(buildGraph(patch), engine, { ...options, runner: runnersOf(options) });
}

/** Whether each target of a patch as it stands is met, and by how much it is missed. */
export const standingsOf = (patch: Patch, options: Parameters<typeof settledAs>[1] = {}): TargetStanding[] =>
  standingsIn(patch.targets, settledAs(patch, options));
