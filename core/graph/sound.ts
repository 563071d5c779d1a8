import { idOf } from '../document/sockets';
import type { Cable } from '../document/types';
import type { Graph, GraphModule } from './graph';

/** The modules that a sound passes on its way out, and the cables that it takes. */
export function soundOf(graph: Graph): { readonly modules: ReadonlySet<string>; readonly cables: readonly Cable[] } {
  const byId = new Map(graph.modules.map((m) => [m.id, m]));
  const plugged = new Set(graph.patch.cables.map((c) => idOf(c.from)));
  const sounds = new Map<string, boolean>();
  const signalCables = (m: GraphModule): Cable[] =>
    graph.patch.cables.filter((c) => m.inputs.some((s) => s.socket === c.to && s.spec.role === 'signal'));
  /** Something that can be heard comes in by a signal input, or it sounds by itself. */
  const isSound = (m: GraphModule): boolean => {
    const known = sounds.get(m.id);
    if (known !== undefined) return known;
    sounds.set(m.id, false);
    const found =
      m.kind.audible === true ||
      signalCables(m).some((c) => {
        const from = byId.get(idOf(c.from));
        return from !== undefined && isSound(from);
      });
    sounds.set(m.id, found);
    return found;
  };
  const outlets = graph.modules.filter((m) => m.kind.outlet);
  const last =
    outlets.length > 0 ? outlets : graph.modules.filter((m) => !plugged.has(m.id) && m.kind.audible !== true);
  const modules = new Set<string>();
  const cables: Cable[] = [];
  const walk = (m: GraphModule): void => {
    if (modules.has(m.id) || !isSound(m)) return;
    modules.add(m.id);
    for (const c of signalCables(m)) {
      const from = byId.get(idOf(c.from));
      if (!from || !isSound(from)) continue;
      cables.push(c);
      walk(from);
    }
  };
  last.forEach(walk);
  return { modules, cables };
}
