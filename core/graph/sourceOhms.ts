import type { Graph } from './graph';
import { Resistances } from './loading';

const resistances = new WeakMap<Graph, Resistances>();

/** The resistance behind an input's cable or normal, ohms, whether loading is counted or not; worked out once a graph. */
export function sourceOhmsAt(graph: Graph, input: string): number {
  let known = resistances.get(graph);
  if (!known) resistances.set(graph, (known = new Resistances(graph.patch.modules, graph.wiring)));
  return known.feed(input);
}
