import { idOf } from '../document/sockets';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { endsOf } from '../graph/strip';
import type { Wire } from '../graph/wiring';

/** What is silenced while a patch plays, and what is heard alone: destinations by their socket, sources by their id. */
export interface Auditioning {
  readonly muted: ReadonlySet<string>;
  readonly soloed: ReadonlySet<string>;
}

/** Destinations that a solo leaves alone: without them nothing would be heard. */
const LEVELS: ReadonlySet<string> = new Set(['gain', 'gainA', 'gainB', 'level']);

/** What can be muted: destinations that something drives, and the sources that drive them. */
export function auditionable(graph: Graph): { readonly ends: readonly string[]; readonly sources: readonly string[] } {
  const wired = new Set(graph.wiring.wires.map((w) => w.to));
  const feeding = new Set(graph.wiring.wires.map((w) => idOf(w.from)));
  return {
    ends: endsOf(graph).filter((at) => socketsOf(graph, at).some((s) => wired.has(s))),
    sources: graph.modules.filter((m) => m.kind.category === 'source' && feeding.has(m.id)).map((m) => m.id),
  };
}

const moduleAt = (graph: Graph, socket: string): GraphModule | undefined =>
  graph.modules.find((m) => m.id === idOf(socket));

const endAt = (m: GraphModule, socket: string) =>
  m.kind.ends?.find((e) => m.inputs.some((s) => s.socket === socket && e.sockets.includes(s.spec.name)));

/** All inputs of the destination that a socket belongs to. */
function socketsOf(graph: Graph, socket: string): readonly string[] {
  const m = moduleAt(graph, socket);
  const end = m && endAt(m, socket);
  return m && end ? m.inputs.filter((s) => end.sockets.includes(s.spec.name)).map((s) => s.socket) : [socket];
}

const isOutlet = (graph: Graph, socket: string): boolean => moduleAt(graph, socket)?.kind.sound?.outlet !== undefined;

/** Whether a destination opens what a sound passes. */
function isLevel(graph: Graph, socket: string): boolean {
  const m = moduleAt(graph, socket);
  const end = m && endAt(m, socket);
  return end !== undefined && LEVELS.has(end.quantity) && !isOutlet(graph, socket);
}

/** The modules that sockets hang on. */
function upTo(graph: Graph, sockets: Iterable<string>): ReadonlySet<string> {
  const found = new Set<string>();
  const drives = (m: GraphModule): string[] => m.inputs.map((s) => s.socket);
  const visit = (socket: string): void => {
    for (const wire of graph.wiring.wires) {
      const id = idOf(wire.from);
      if (wire.to !== socket || found.has(id)) continue;
      found.add(id);
      const m = graph.modules.find((x) => x.id === id);
      if (m) drives(m).forEach(visit);
    }
  };
  for (const socket of sockets) visit(socket);
  return found;
}

const isAudible = (m: GraphModule | undefined): boolean => m?.kind.sound?.audible === true;

/** The cables and normals that carry nothing. */
function silenced(graph: Graph, { muted, soloed }: Auditioning): Wire[] {
  const { ends, sources } = auditionable(graph);
  const soloedSources = sources.filter((id) => soloed.has(id));
  const isKept = (end: string): boolean =>
    soloed.has(end) ||
    isLevel(graph, end) ||
    isOutlet(graph, end) ||
    (soloedSources.length > 0 && soloedSources.some((id) => upTo(graph, socketsOf(graph, end)).has(id)));
  const offEnds = ends.filter((end) => muted.has(end) || (soloed.size > 0 && !isKept(end)));
  const levels = upTo(
    graph,
    ends.filter((end) => isLevel(graph, end)).flatMap((end) => socketsOf(graph, end)),
  );
  const offSources = sources.filter(
    (id) =>
      muted.has(id) ||
      (soloedSources.length > 0 &&
        !soloed.has(id) &&
        !levels.has(id) &&
        !isAudible(graph.modules.find((m) => m.id === id))),
  );
  const inputs = new Set(offEnds.flatMap((end) => socketsOf(graph, end)));
  return graph.wiring.wires.filter((w) => inputs.has(w.to) || offSources.includes(idOf(w.from)));
}

/**
 * A patch as it is auditioned: what is muted gets what it gets with its cable pulled and nothing normalled to it. Solo
 * mutes all other modulation: destinations but levels and ways out, and sources on which no level hangs.
 *
 * @param heard the patch that plays, a test voice included. @param patch what it is of.
 */
export function auditioned(heard: Patch, patch: Patch, auditioning: Auditioning): Patch {
  if (auditioning.muted.size + auditioning.soloed.size === 0) return heard;
  const off = silenced(buildGraph(patch), auditioning);
  const own = new Set(patch.modules.map((m) => m.id));
  const froms = new Set(off.map((w) => w.from));
  // A test voice hangs on what drives a destination.
  const voiced = heard.cables.filter((c) => !own.has(idOf(c.to)) && froms.has(c.from)).map((c) => c.to);
  return applyEdits(
    heard,
    [...off.map((w) => w.to), ...voiced].flatMap((to): Edit[] => [
      { do: 'unplug', to },
      { do: 'normal', to, normal: null },
    ]),
  );
}
