import type { Graph, GraphModule } from './graph';

/** The modules whose outputs arrive at some inputs of a module, each once. */
export function feedsOf(graph: Graph, m: GraphModule, sockets: readonly string[]): GraphModule[] {
  const found = m.inputs.flatMap(({ spec, driver }) =>
    sockets.includes(spec.name) && driver.type === 'output' ? (graph.modules[driver.module] ?? []) : [],
  );
  return [...new Set(found)];
}
