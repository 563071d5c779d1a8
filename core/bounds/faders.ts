import { socketAt } from '../document/sockets';
import type { Graph, GraphModule } from '../graph/graph';
import type { Range } from '../law/affine';
import { BoundsEngine } from './bounds';
import type { ModuleBounds } from './bounds';

/** The travel of a fader, wheel or pedal, volts; null of every other module, and of a fader that automation moves. */
export function travelOf({ kind, params, hands }: GraphModule): Range | null {
  return hands.length > 0 ? null : (kind.panel?.fader?.travel(params) ?? null);
}

/** The same graph with every fader anywhere on its travel; the very graph where there is none. */
export function withFadersMoved(graph: Graph): Graph {
  if (!graph.modules.some((m) => travelOf(m) !== null)) return graph;
  const modules = graph.modules.map((m): GraphModule => {
    const travel = travelOf(m);
    if (!travel) return m;
    const points = travel.map((value, t) => ({ t, value }));
    return {
      ...m,
      hands: [{ at: socketAt(m.id, m.kind.panel?.fader?.param ?? ''), interpolation: 'linear', loop: false, points }],
    };
  });
  return { ...graph, modules };
}

/**
 * Guaranteed ranges with every fader anywhere on its travel.
 *
 * @param bounds those of the graph as its faders stand, which are the answer where it has none.
 */
export function boundsOverFaders(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  engine = new BoundsEngine(),
): ReadonlyMap<string, ModuleBounds> {
  const moved = withFadersMoved(graph);
  return moved === graph ? bounds : engine.run(moved);
}
