import { idOf } from '../document/sockets';
import { feedingModules } from './graph';
import type { Graph, GraphModule } from './graph';
import type { Wire } from './wiring';

/** The modules that a sound passes on its way out, and the connections that it takes, normals among them. */
export function soundOf(graph: Graph): { readonly modules: ReadonlySet<string>; readonly wires: readonly Wire[] } {
  const byId = new Map(graph.modules.map((m) => [m.id, m]));
  const feeding = feedingModules(graph);
  const sounds = new Map<string, boolean>();
  const into = new Map(graph.wiring.wires.map((w) => [w.to, w]));
  const signalWires = (m: GraphModule): Wire[] =>
    m.inputs.flatMap((s) => (s.spec.role === 'signal' ? (into.get(s.socket) ?? []) : []));
  /** Something that can be heard comes in by a signal input, or it sounds by itself. */
  const isSound = (m: GraphModule): boolean => {
    const known = sounds.get(m.id);
    if (known !== undefined) return known;
    sounds.set(m.id, false);
    const found =
      m.kind.sound?.audible === true ||
      signalWires(m).some((c) => {
        const from = byId.get(idOf(c.from));
        return from !== undefined && isSound(from);
      });
    sounds.set(m.id, found);
    return found;
  };
  const outlets = graph.modules.filter((m) => m.kind.sound?.outlet);
  const last =
    outlets.length > 0 ? outlets : graph.modules.filter((m) => !feeding.has(m.id) && m.kind.sound?.audible !== true);
  const modules = new Set<string>();
  const wires: Wire[] = [];
  const walk = (m: GraphModule): void => {
    if (modules.has(m.id) || !isSound(m)) return;
    modules.add(m.id);
    for (const c of signalWires(m)) {
      const from = byId.get(idOf(c.from));
      if (!from || !isSound(from)) continue;
      wires.push(c);
      walk(from);
    }
  };
  last.forEach(walk);
  return { modules, wires };
}
