import { BoundsEngine } from '../bounds/bounds';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import type { Range } from '../law/affine';
import { faultyGraph } from './faults';
import type { Fault } from './faults';

/** What every output and input would be with faults in the patch: its guaranteed range, volts, by socket. */
export function rangesWith(patch: Patch, faults: readonly Fault[]): ReadonlyMap<string, Range> {
  const graph = faultyGraph(patch, buildGraph(patch).wiring.cables, faults, []);
  const bounds = new BoundsEngine().run(graph);
  return new Map(
    graph.modules.flatMap((m) => {
      const found = bounds.get(m.id);
      return [
        ...m.outputs.map((o, i) => [o.socket, found?.outputs[i] ?? [0, 0]] as const),
        ...m.inputs.map((s, i) => [s.socket, found?.inputs[i] ?? [0, 0]] as const),
      ];
    }),
  );
}
