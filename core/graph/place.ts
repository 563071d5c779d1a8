import { partsOf } from '../document/sockets';
import type { Target } from '../document/targets';
import type { Graph, GraphModule } from './graph';
import type { EndSpec } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';

/** Where a target is looked at: what arrives at a destination, all together, or the voltage of one socket. */
export interface Place {
  readonly socket: string;
  /** Index of its module in the graph. */
  readonly module: number;
  readonly at:
    | { readonly is: 'end'; readonly index: number; readonly spec: EndSpec<ParamValues> }
    | { readonly is: 'input'; readonly index: number }
    | { readonly is: 'output'; readonly index: number };
}

function endOf(m: GraphModule, name: string, quantity: string | undefined): Place['at'] | null {
  const ends = m.kind.ends ?? [];
  const asked = ends.findIndex((e) => e.socket === name && e.quantity === quantity && (e.exists?.(m.params) ?? true));
  const index = asked >= 0 ? asked : ends.findIndex((e) => e.socket === name);
  const among = index >= 0 || quantity === 'volts' ? index : ends.findIndex((e) => e.sockets.includes(name));
  const spec = ends[among];
  return spec ? { is: 'end', index: among, spec } : null;
}

/**
 * The place of a socket. A destination's own socket stands for all that counts there; one that only adds to it does so
 * unless its own volts are asked for.
 *
 * @returns null where there is no such socket.
 */
export function placeOf(graph: Graph, socket: string, quantity?: string): Place | null {
  const { id, name } = partsOf(socket);
  const m = graph.modules.find((x) => x.id === id);
  if (!m) return null;
  const at = (found: Place['at']): Place => ({ socket, module: m.index, at: found });
  const end = endOf(m, name, quantity);
  if (end) return at(end);
  const input = m.inputs.findIndex((s) => s.spec.name === name);
  if (input >= 0) return at({ is: 'input', index: input });
  const output = m.outputs.findIndex((o) => o.name === name);
  return output < 0 ? null : at({ is: 'output', index: output });
}

const VOLTAGES: readonly Target['want'][] = ['steps', 'duty', 'dip', 'arrive', 'like'];

/** Where a target itself is looked at: crossings and shapes are of the socket's own voltage. */
export function placeOfTarget(graph: Graph, target: Target): Place | null {
  const quantity = VOLTAGES.includes(target.want) ? 'volts' : 'quantity' in target ? target.quantity : undefined;
  const place = placeOf(graph, target.at, quantity);
  if (place?.at.is !== 'end' || !VOLTAGES.includes(target.want)) return place;
  const m = graph.modules[place.module];
  const index = m?.inputs.findIndex((s) => s.socket === target.at) ?? -1;
  return index < 0 ? place : { ...place, at: { is: 'input', index } };
}

/** The unit that a target's figures are in. */
export function unitOf(graph: Graph, target: Target): string {
  const place = placeOfTarget(graph, target);
  const m = place && graph.modules[place.module];
  if (!m || place.at.is !== 'end' || ('quantity' in target && target.quantity === 'volts')) return 'V';
  return place.at.spec.unit(m.params);
}
