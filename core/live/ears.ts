import { nameOf } from '../document/sockets';
import { socketPlace } from '../document/names';
import { feedingModules } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { soundOf } from '../graph/sound';
import { gainOf } from '../units/ratios';

/** What is listened to: the same socket twice is one voice in the middle. */
export interface Ears {
  readonly left: string;
  readonly right: string;
  /** What a pad on the way leaves, as a factor. */
  readonly gain: number;
  /** What it is, in a few words. */
  readonly says: string;
}

/** A line output as it is heard: both sides, or what is plugged on both ears. */
function outletEars(m: GraphModule): Ears | null {
  const plugged = m.inputs.filter((s) => s.spec.role === 'signal' && s.connected);
  const [left, right = left] = plugged;
  if (!left || !right) return null;
  const pad = Number(m.params.padDb ?? 0);
  return { left: left.socket, right: right.socket, gain: gainOf(-pad), says: m.label };
}

const single = (m: GraphModule, socket: string): Ears => ({
  left: socket,
  right: socket,
  gain: 1,
  says: socketPlace(m, nameOf(socket)),
});

/** All that can be listened to: line outputs first, then every output. */
export function earsOffered(graph: Graph): Ears[] {
  const outlets = graph.modules.filter((m) => m.kind.sound?.outlet).flatMap((m) => outletEars(m) ?? []);
  return [...outlets, ...graph.modules.flatMap((m) => m.outputs.map((o) => single(m, o.socket)))];
}

/**
 * What is listened to unless somebody says otherwise: the line output, or where the sound comes out at last; null
 * where nothing can be heard, because there are voltages alone.
 */
export function usualEars(graph: Graph): Ears | null {
  const outlet = graph.modules.find((m) => m.kind.sound?.outlet && outletEars(m));
  if (outlet) return outletEars(outlet);
  const { modules } = soundOf(graph);
  const from = feedingModules(graph);
  const last =
    graph.modules.findLast((m) => modules.has(m.id) && !from.has(m.id) && m.outputs.length > 0) ??
    graph.modules.findLast((m) => m.kind.sound?.audible === true && m.outputs.length > 0);
  const output = last?.outputs[0];
  return last && output ? single(last, output.socket) : null;
}
