import type { Graph } from './graph';
import { Resistances } from './loading';
import type { Part } from './loading';

const resistances = new WeakMap<Graph, Resistances>();

/** The resistance behind an input's cable, ohms, whether loading is counted or not; worked out once a graph. */
export function sourceOhmsAt(graph: Graph, input: string): number {
  let known = resistances.get(graph);
  if (!known) {
    const parts = graph.modules.map(({ id, kind, params, inputs, outputs }): Part => {
      const names = inputs.map((s) => ({ name: s.spec.name }));
      return { id, kind, params, inputs: names, outputs: outputs.map((o) => o.name) };
    });
    resistances.set(graph, (known = new Resistances(graph.patch, parts)));
  }
  return known.feed(input);
}
