import { BoundsEngine } from '../bounds/bounds';
import { glance } from '../answers/glance';
import type { Glance, SocketPrediction } from '../answers/glance';
import type { Reading } from '../answers/readings';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import type { Range } from '../law/affine';
import { simulateGraph } from '../simulate/simulate';
import type { Simulation } from '../simulate/types';

interface SeenOptions {
  /** Sockets whose traces are kept. */
  readonly traces?: readonly string[];
  /** Runs only what these sockets hang on: of others nothing but the guaranteed range is known. */
  readonly only?: readonly string[];
}

/** What a patch comes to, as `predict` has it, with traces where they are asked for. */
export class Seen {
  readonly graph: Graph;
  readonly prediction: Glance;
  readonly simulation: Simulation;

  constructor(
    readonly patch: Patch,
    { traces = [], only }: SeenOptions = {},
  ) {
    this.graph = buildGraph(patch);
    const bounds = new BoundsEngine().run(this.graph);
    this.simulation = simulateGraph(this.graph, { bounds, traces, ...(only && { only }) });
    this.prediction = glance(this.graph, bounds, this.simulation);
  }

  /** An output, or what arrives at an input. @throws where there is no such socket. */
  at(socket: string): SocketPrediction {
    const found = this.prediction.outputs[socket] ?? this.prediction.inputs[socket];
    if (!found) throw new Error(`there is no voltage at ${socket}`);
    return found;
  }

  range(socket: string): Range {
    return this.at(socket).arrives;
  }

  reading(socket: string, quantity?: string): Reading | null {
    return (
      this.prediction.readings.find((r) => r.at === socket && (quantity === undefined || r.quantity === quantity)) ??
      null
    );
  }

  /** Volts over the window. */
  trace(socket: string): Float64Array {
    return this.simulation.traces.get(socket) ?? new Float64Array(0);
  }

  /** Share of the time that an output clips, 0..1. */
  clipped(socket: string): number {
    const out = this.simulation.outputs.get(socket);
    return out ? out.clippedLow + out.clippedHigh : 0;
  }
}
