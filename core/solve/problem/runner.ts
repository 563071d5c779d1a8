import { BoundsEngine } from '../../bounds/bounds';
import type { Patch } from '../../document/types';
import { buildGraph } from '../../graph/graph';
import { simulateGraph } from '../../simulate/simulate';
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

/** Runs a patch for one trace after another; of one place once. */
export function runnerOf({ asset, sampleRate }: RunOptions = {}): Runner {
  let simulation: Simulation | null = null;
  const trace = (graph: Graph, place: Place): Float64Array => {
    if (!simulation?.traces.has(place.socket) && !simulation?.drives.has(place.socket)) {
      const at = sampleRate === undefined ? graph : { ...graph, sampleRate };
      const ask = place.at.is === 'end' ? { drives: [place.socket] } : { traces: [place.socket] };
      simulation = simulateGraph(at, { ...ask, only: [place.socket], sparing: true, ...(asset && { asset }) });
    }
    return (place.at.is === 'end' ? simulation.drives : simulation.traces).get(place.socket) ?? new Float64Array(1);
  };
  return { trace, error: traceError };
}

/** A patch as it stands, run and looked at from the start: what a claim rests on. */
export function settledAs(patch: Patch, options: Omit<TrialOptions, 'runner'> & RunOptions = {}): Setting {
  const runner = () => runnerOf(options);
  return lookedAt(buildGraph(patch), new BoundsEngine(options.closeness), { ...options, runner });
}

/** Whether each target of a patch as it stands is met, and by how much it is missed. */
export const standingsOf = (patch: Patch, options: Parameters<typeof settledAs>[1] = {}): TargetStanding[] =>
  standingsIn(patch.targets, settledAs(patch, options));
