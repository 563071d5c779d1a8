import { graphRepeats } from '../bounds/repeats';
import { idOf } from '../document/sockets';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { isSlow } from '../graph/upstream';
import { levelsOf, pluggedSoFar, READ_OF, turnsOf } from '../sheet/expect';
import type { Asset, VoltageSort } from '../sheet/expect';
import { AUDIO_HZ, STILL_VOLTS } from '../sheet/expect';
import { simulateGraph } from '../simulate/simulate';
import type { Simulation } from '../simulate/types';
import { inWindow } from './figures';
import type { Reading } from './figures';
import { quickWindow } from './looks';

/** Everything that can be read of a patch with all its cables plugged, by one quick look at slow voltages and one at sound. */
export function allReadings(patch: Patch, asset: Asset): Reading[] {
  const graph = buildGraph(pluggedSoFar(patch, buildGraph(patch).wiring.cables));
  const sorts = sortsOf(graph, asset);
  return graph.modules.flatMap((m) => [
    ...m.outputs.flatMap(({ socket }) =>
      READ_OF[sorts.get(socket) ?? 'steady'].map((quantity): Reading => ({ at: socket, quantity, knobs: [] })),
    ),
    ...m.inputs
      .filter((s) => s.driver.type === 'volts')
      .map(({ socket }): Reading => ({ at: socket, quantity: 'steady', knobs: [] })),
  ]);
}

/** What sort of voltage is at each output. */
function sortsOf(graph: Graph, asset: Asset): ReadonlyMap<string, VoltageSort> {
  const repeats = graphRepeats(graph);
  const outputs = graph.modules.flatMap((m) => m.outputs.map((o) => ({ m, name: o.name, socket: o.socket })));
  const sorted = [true, false].flatMap((slow) => {
    const these = outputs.filter((o) => isSlow(graph, [o.socket]) === slow);
    if (these.length === 0) return [];
    const sockets = these.map((o) => o.socket);
    const run = inWindow(graph, quickWindow(graph, slow));
    const traces = slow ? sockets : [];
    const seen = simulateGraph(run, { only: sockets, traces, repeats, ...(asset && { asset }) });
    return these.map(({ m, name, socket }) => {
      const every = repeats.get(idOf(socket))?.repeatsEvery ?? null;
      return [socket, sortOf(m, name, socket, seen, every)] as const;
    });
  });
  return new Map(sorted);
}

function sortOf(m: GraphModule, name: string, socket: string, seen: Simulation, every: number | null): VoltageSort {
  const out = seen.outputs.get(socket);
  const [low, high] = out?.settled ?? [0, 0];
  if (high - low <= STILL_VOLTS) return 'steady';
  const trace = seen.traces.get(socket);
  if (!trace || m.kind.sound?.audible) return 'audio';
  if (m.kind.timing?.gates?.includes(name) && levelsOf(trace)) return 'gate';
  return (every === null ? turnsOf(trace, out?.mean ?? 0, seen.sampleRate) : 1 / every) >= AUDIO_HZ ? 'audio' : 'slow';
}
