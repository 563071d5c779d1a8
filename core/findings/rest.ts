import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { inputNamed, lawAt, sourceOf } from './paths';

/** The voltage of an output while every envelope rests; null where something moves by itself. */
export function restVolts(graph: Graph, input: GraphInput, known = new Map<string, number | null>()): number | null {
  if (input.driver.type === 'volts') return input.driver.volts;
  const from = sourceOf(graph, input);
  if (!from) return null;
  const before = known.get(from.socket);
  if (before !== undefined) return before;
  known.set(from.socket, null); // A loop does not rest.
  const rest = restOf(graph, from, known);
  known.set(from.socket, rest);
  return rest;
}

function restOf(
  graph: Graph,
  { m, output }: { m: GraphModule; output: string },
  known: Map<string, number | null>,
): number | null {
  const { contour, lags } = m.kind.timing ?? {};
  if (contour && (m.kind.source?.hertz?.(m.params) ?? 0) > 0) return null; // It loops, and never rests.
  if (contour) return contour.rests(m.params, output) * (m.outputs.find((o) => o.name === output)?.factor ?? 1);
  const followed = lags === undefined ? undefined : inputNamed(m, lags);
  if (followed) return restVolts(graph, followed, known);
  const rests = new Map(m.inputs.map((s) => [s, restVolts(graph, s, known)]));
  if ([...rests.values()].some((v) => v === null)) return null;
  return lawAt(m, output, (s) => rests.get(s) ?? 0);
}
