import { socketAt } from '../document/sockets';
import { applyEdits } from '../edit/edit';
import { freeId } from '../edit/editSequence';
import { idOf } from '../document/sockets';
import type { Edit } from '../edit/edit';
import type { ModuleDoc } from '../document/types';
import type { Graph, GraphModule } from '../graph/graph';
import type { Cure } from './finding';
import { pitchedOutputs } from './pitch-paths';

/** What the stages that fixes add are called in a document, before numbers tell them apart. */
export const FIX_IDS = { offset: 'mend', slew: 'soften', inverter: 'turn', gate: 'return' } as const;

/** Whether a fix added a module. */
export const isFromFix = (id: string): boolean =>
  Object.values(FIX_IDS).some((name) => id.startsWith(name) && /^\d*$/.test(id.slice(name.length)));

const MOST_AMOUNT = 4;
const MOST_VOLTS = 12;

/** A scale-and-offset stage that does `amount·in + volts`; null where no such stage can. */
function offsetModule(id: string, label: string, amount: number, volts: number): ModuleDoc | null {
  if (!(Math.abs(amount) <= MOST_AMOUNT && Math.abs(volts) <= MOST_VOLTS)) return null;
  const reach = Math.max(5, Math.ceil(Math.abs(volts)));
  const maxAmount = Math.abs(amount) <= 1 ? 1 : Math.abs(amount) <= 2 ? 2 : MOST_AMOUNT;
  return { id, kind: 'offset', label, params: { amount, maxAmount, volts, lowVolts: -reach, highVolts: reach } };
}

/** The edits, unless the patch is full. */
const unlessFull = (graph: Graph, edits: readonly Edit[]): Edit[] =>
  applyEdits(graph.patch, edits).modules.length > graph.patch.modules.length ? [...edits] : [];

/** Edits that put a module into the cable that ends at `socket`; none where there is no cable. */
export function insertBefore(graph: Graph, socket: string, module: ModuleDoc | null): Edit[] {
  const cable = graph.wiring.cableInto(socket);
  if (!cable || !module) return [];
  return unlessFull(graph, [
    { do: 'add', module, before: idOf(socket) },
    { do: 'plug', cable: { from: cable.from, to: socketAt(module.id, 'in') } },
    { do: 'plug', cable: { from: socketAt(module.id, 'out'), to: socket } },
  ]);
}

/** The same for a scale-and-offset stage. */
export const insertOffset = (graph: Graph, socket: string, label: string, amount: number, volts: number): Edit[] =>
  insertBefore(graph, socket, offsetModule(freeId(graph.patch, FIX_IDS.offset), label, amount, volts));

/** Edits that put a scale-and-offset stage behind an output, before all that its cables lead to. */
export function insertOffsetAfter(graph: Graph, output: string, label: string, amount: number, volts: number): Edit[] {
  const onward = graph.wiring.cablesFrom(output);
  const stage = offsetModule(freeId(graph.patch, FIX_IDS.offset), label, amount, volts);
  const next = graph.patch.modules[graph.patch.modules.findIndex((m) => m.id === idOf(output)) + 1];
  if (onward.length === 0 || !stage) return [];
  return unlessFull(graph, [
    { do: 'add', module: stage, ...(next && { before: next.id }) },
    ...onward.map(({ to }): Edit => ({ do: 'plug', cable: { from: socketAt(stage.id, 'out'), to } })),
    { do: 'plug', cable: { from: output, to: socketAt(stage.id, 'in') } },
  ]);
}

/**
 * A mixer that takes a junction's place: with the mean of what is tied, or where that is pitch its sum, which keeps an
 * octave an octave.
 */
export function mixerInstead(graph: Graph, { id, index, inputs, outputs }: GraphModule): Cure {
  const law = outputs.some((o) => pitchedOutputs(graph).has(o.socket)) ? 'sum' : 'average';
  const { rack: _rack, params: _params, ...kept } = graph.patch.modules[index] ?? { id, kind: '' };
  const params = { inputs: inputs.length, law };
  return { label: 'Replace with a mixer', edits: [{ do: 'replace', module: { ...kept, kind: 'mixer', params } }] };
}
