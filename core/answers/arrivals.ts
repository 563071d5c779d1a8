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
  private readonly repeats: ReadonlyMap<string, Repeats>;

  constructor(
    private readonly graph: Graph,
    bounds: ReadonlyMap<string, ModuleBounds>,
    private readonly simulation: Simulation | null,
  ) {
    this.repeats = repeatsIn(graph, bounds);
  }

  atOutputs(m: GraphModule): ArrivesBy {
    const known = this.repeats.get(m.id);
    return known ? this.by(known) : 'bound';
  }

  /** At some inputs of a module, all together. */
  atInputs(m: GraphModule, sockets: readonly string[]): ArrivesBy {
    return this.by(upstreamAt(this.graph, m, sockets, this.repeats));
  }

  /** The window that would hold the whole movement at some inputs, seconds; null where it does already. */
  windowFor(m: GraphModule, sockets: readonly string[]): number | null {
    const upstream = upstreamAt(this.graph, m, sockets, this.repeats);
    const every = this.by(upstream) === 'short' ? slowSeconds(upstream.slow) : null;
    return every === null ? null : Math.ceil(2 * every);
  }

  private by(upstream: Upstream): ArrivesBy {
    if (!this.simulation) return 'bound';
    return arrivalOf(upstream, this.simulation.samples, this.simulation.sampleRate).by;
  }
}
