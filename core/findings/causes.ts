import type { BoundsEngine, ModuleBounds } from '../bounds/bounds';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import type { Range } from '../law/affine';
import { sourceOf } from './paths';

/** An output whose voltage arrives, scaled and summed, and what it is of. */
export interface Cause {
  readonly m: GraphModule;
  readonly socket: string;
}

/** Whether what a module puts out is of its own making: its inputs decide when and how, not with which voltage. */
export const isOrigin = (m: GraphModule): boolean =>
  m.kind.category === 'source' || (m.kind.source?.remakes?.(m.params) ?? false);

/** The outputs whose voltages reach any of the inputs: not what only clocks, gates or triggers something there. */
export function causesOf(graph: Graph, inputs: readonly GraphInput[]): Cause[] {
  const found = new Map<string, Cause>();
  const passed = new Set<GraphModule>();
  const visit = (input: GraphInput): void => {
    const from = sourceOf(graph, input);
    if (!from || input.spec.role === 'gate') return;
    if (isOrigin(from.m)) found.set(from.socket, { m: from.m, socket: from.socket });
    else if (!passed.has(from.m)) {
      passed.add(from.m);
      from.m.inputs.forEach(visit);
    }
  };
  inputs.forEach(visit);
  return [...found.values()];
}

/**
 * The same graph with outputs held at given voltages, by socket.
 *
 * @param reaches which of the inputs that they drive get the held voltage; all where it is left out.
 */
export function heldAt(
  graph: Graph,
  volts: ReadonlyMap<string, number>,
  reaches: (input: GraphInput) => boolean = () => true,
): Graph {
  const modules = graph.modules.map((m) => ({
    ...m,
    inputs: m.inputs.map((s): GraphInput => {
      const at = !reaches(s) ? undefined : volts.get(sourceOf(graph, s)?.socket ?? '');
      return at === undefined ? s : { ...s, driver: { type: 'volts', volts: at } };
    }),
  }));
  return { ...graph, modules };
}

const nearestToZero = ([lo, hi]: Range): number => Math.min(hi, Math.max(lo, 0));

/** Bounds of the graph with some causes held where they are nearest to 0 V. */
export function boundsWithout(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  causes: readonly Cause[],
  engine: BoundsEngine,
): ReadonlyMap<string, ModuleBounds> {
  const volts = causes.map(({ m, socket }) => {
    const range = bounds.get(m.id)?.outputs[m.outputs.findIndex((o) => o.socket === socket)] ?? [0, 0];
    return [socket, nearestToZero(range)] as const;
  });
  return engine.run(heldAt(graph, new Map(volts)));
}
