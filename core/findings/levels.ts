import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { sourceOf } from './paths';

/** Whether an output has two levels alone: a gate, a pulse. */
const isTwoLevel = ({ kind, params }: GraphModule, output: string): boolean =>
  (kind.timing?.gates?.includes(output) ?? false) || (kind.timing?.twoLevels?.(params, output) ?? false);

/** Stages that give two levels of two: what remembers, and what multiplies two movements, does not. */
function passes(m: GraphModule): boolean {
  const connected = (name: string): boolean => m.inputs.some((s) => s.spec.name === name && s.connected);
  return m.kind.category !== 'source' && !m.kind.memory(m.params, connected);
}

/**
 * Whether what arrives at an input has two levels alone: from a gate or a pulse, through stages without memory of which
 * each has one input that moves.
 */
export function hasTwoLevels(graph: Graph, input: GraphInput): boolean {
  const passed = new Set<GraphModule>();
  let at = input;
  for (;;) {
    const from = sourceOf(graph, at);
    if (!from || passed.has(from.m)) return false;
    if (isTwoLevel(from.m, from.output)) return true;
    passed.add(from.m);
    const driven = from.m.inputs.filter((s) => s.driver.type === 'output');
    if (!passes(from.m) || driven.length !== 1) return false;
    at = driven[0] as GraphInput;
  }
}
