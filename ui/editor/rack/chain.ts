import { applyEdits, buildGraph, idOf, stripTo } from '@/core';
import type { Patch } from '@/core';

/**
 * A patch without the stages between an output and an end, as far as nothing else hangs on them, with the output plugged
 * straight in: what a planner begins with.
 */
export function withoutChain(patch: Patch, from: string, to: string): Patch {
  const graph = buildGraph(patch);
  const { wires } = graph.wiring;
  const frames = stripTo(graph, to)?.frames ?? [];
  const between = frames
    .map((f) => f.module)
    .filter((m) => m.kind.category === 'between' && m.id !== idOf(to) && m.id !== idOf(from));
  const inPath = new Set([...between.map((m) => m.id), idOf(to)]);
  const loose = between.filter(
    (m) =>
      wires.every((w) => idOf(w.from) !== m.id || inPath.has(idOf(w.to))) &&
      wires.filter((w) => idOf(w.to) === m.id).length <= 1,
  );
  return applyEdits(patch, [
    ...loose.map((m) => ({ do: 'remove', id: m.id }) as const),
    { do: 'plug', cable: { from, to } },
  ]);
}
