import { repeatsIn } from '../bounds/repeats';
import type { ModuleBounds } from '../bounds/bounds';
import type { Repeats } from '../bounds/repeats';
import { slowSeconds } from '../bounds/slow';
import type { Graph, GraphModule } from '../graph/graph';
import { arrivalOf, upstreamAt } from '../simulate/arrival';
import type { ArrivesBy, Upstream } from '../simulate/arrival';
import type { Simulation } from '../simulate/types';

/** What the range that arrives at each place of a patch is taken from; the bound everywhere where nothing was run. */
export class Arrivals {
  /** What was run, and how all of it repeats; null where nothing was. */
  private readonly run: { readonly of: Simulation; readonly repeats: ReadonlyMap<string, Repeats> } | null;

  constructor(
    private readonly graph: Graph,
    bounds: ReadonlyMap<string, ModuleBounds>,
    simulation: Simulation | null,
  ) {
    this.run = simulation && { of: simulation, repeats: repeatsIn(graph, bounds) };
  }

  atOutputs(m: GraphModule): ArrivesBy {
    const known = this.run?.repeats.get(m.id);
    return known ? this.by(known) : 'bound';
  }

  /** At some inputs of a module, all together. */
  atInputs(m: GraphModule, sockets: readonly string[]): ArrivesBy {
    return this.by(this.upstream(m, sockets));
  }

  /** The window that would hold the whole movement at some inputs, seconds; null where it does already. */
  windowFor(m: GraphModule, sockets: readonly string[]): number | null {
    const upstream = this.upstream(m, sockets);
    const every = upstream && this.by(upstream) === 'short' ? slowSeconds(upstream.slow) : null;
    return every === null ? null : Math.ceil(2 * every);
  }

  private upstream(m: GraphModule, sockets: readonly string[]): Upstream | null {
    return this.run && upstreamAt(this.graph, m, sockets, this.run.repeats);
  }

  private by(upstream: Upstream | null): ArrivesBy {
    if (!this.run || !upstream) return 'bound';
    return arrivalOf(upstream, this.run.of.samples, this.run.of.sampleRate).by;
  }
}
