import { BoundsEngine } from '../bounds/bounds';
import { idOf, nameOf } from '../document/sockets';
import type { ModuleDoc, Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { Wiring } from '../graph/wiring';
import { placeOf } from '../graph/place';

/** Which way a destination goes while its source rises. */
export type Direction = 'with' | 'against';

/** What arrives at a destination while an output stands at a voltage. */
function driveAt(patch: Patch, from: string, to: string, volts: number): number {
  const id = idOf(from);
  const held: ModuleDoc = { id: 'held0', kind: 'constant', params: { volts, lowVolts: -12, highVolts: 12 } };
  const wiring = new Wiring(patch);
  const cables = wiring.wires.map(({ from: output, to: input }) => ({
    from: output === from ? 'held0.out' : output,
    to: input,
  }));
  const drives = wiring.wires.some((w) => idOf(w.from) === id);
  const modules = [...patch.modules.filter((m) => m.id !== id || drives), held];
  const graph = buildGraph({ ...patch, modules, cables });
  const bounds = new BoundsEngine().run(graph);
  const place = placeOf(graph, to);
  const found = bounds.get(idOf(to));
  if (!place || !found) return 0;
  const range = place.at.is === 'end' ? found.ends[place.at.index]?.drive : found.inputs[place.at.index];
  return range ? (range[0] + range[1]) / 2 : 0;
}

/** Whether a destination goes the way that is asked for; any way will do where none is. */
export function goesWith(patch: Patch, from: string, to: string, direction: Direction | null): boolean {
  if (direction === null) return true;
  const output = patch.modules.some((m) => m.id === idOf(from)) && nameOf(from) !== '';
  const rise = output ? driveAt(patch, from, to, 1) - driveAt(patch, from, to, 0) : 0;
  return direction === 'with' ? rise > 0 : rise < 0;
}
