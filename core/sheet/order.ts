import { idOf } from '../document/sockets';
import type { Cable } from '../document/types';
import type { Graph, GraphModule } from '../graph/graph';
import { soundOf } from '../graph/sound';
import type { Wire } from '../graph/wiring';

/** One thing to do, before it is told in words. */
export type Act =
  | { readonly do: 'set'; readonly module: string; readonly part: string }
  | { readonly do: 'plug'; readonly cable: Cable; readonly part: string }
  | { readonly do: 'measure'; readonly socket: string; readonly part: string }
  | { readonly do: 'listen'; readonly end: string; readonly part: string };

/** A step's id, stable against edits elsewhere. */
export function actId(act: Act): string {
  switch (act.do) {
    case 'set':
      return `set-${act.module}`;
    case 'plug':
      return `plug-${act.cable.from}-${act.cable.to}`;
    case 'measure':
      return `measure-${act.socket}`;
    case 'listen':
      return `listen-${act.end}`;
  }
}

const plugKey = (c: Cable): string => `${c.from} ${c.to}`;

/** The socket that a module without a connection goes by: its first input, else its first output. */
const ownSocket = (m: GraphModule): string => m.inputs[0]?.socket ?? m.outputs[0]?.socket ?? m.id;

/** Puts what is to be done in an order in which everything can be checked as it grows. */
export class Order {
  readonly acts: Act[] = [];
  private readonly set = new Set<string>();
  private readonly plugs = new Set<string>();
  private readonly measured = new Set<string>();
  /** Being built: coming back to one of them is a loop. */
  private readonly open = new Set<string>();
  private readonly byId: ReadonlyMap<string, GraphModule>;
  private readonly looped: ReadonlySet<string>;
  private readonly wires: readonly Wire[];

  constructor(private readonly graph: Graph) {
    this.byId = new Map(graph.modules.map((m) => [m.id, m]));
    this.wires = graph.wiring.wires;
    this.looped = new Set(
      graph.groups.filter((g) => g.loop).flatMap((g) => g.modules.map((i) => graph.modules[i]?.id ?? '')),
    );
  }

  run(): Act[] {
    const sound = soundOf(this.graph);
    for (const wire of sound.wires.toReversed()) this.bring(wire, 'sound', sound.wires);
    for (const id of sound.modules) this.setOnce(id, 'sound');
    for (let ends = this.endsLeft(sound.modules); ends.length > 0; ends = this.endsLeft(sound.modules)) {
      const [next] = ends;
      if (!next) break;
      const part = `path ${next.to}`;
      this.bring(next, part, this.wires);
      this.acts.push({ do: 'listen', end: next.to, part });
    }
    for (const wire of this.wires) this.bring(wire, `path ${wire.to}`, this.wires);
    for (const m of this.graph.modules) if (!m.bypassed) this.setOnce(m.id, `path ${ownSocket(m)}`);
    return this.acts;
  }

  /** What leads into the sound or into what leads nowhere, that with the fewest cables to plug first. */
  private endsLeft(sound: ReadonlySet<string>): Wire[] {
    const onward = new Set(this.wires.map((w) => idOf(w.from)));
    const joins = new Map<string, number>();
    return this.wires
      .filter((c) => !this.plugs.has(plugKey(c)) && (sound.has(idOf(c.to)) || !onward.has(idOf(c.to))))
      .map((c) => {
        joins.set(c.to, this.joinsTo(c));
        return c;
      })
      .sort((a, b) => (joins.get(a.to) ?? 0) - (joins.get(b.to) ?? 0) || (a.to < b.to ? -1 : 1));
  }

  /** The cables that must be plugged before a connection carries its signal, itself included. */
  private joinsTo(wire: Wire, seen = new Set<string>()): number {
    if (this.plugs.has(plugKey(wire)) || seen.has(plugKey(wire))) return 0;
    seen.add(plugKey(wire));
    const before = this.wires.filter((w) => idOf(w.to) === idOf(wire.from));
    return before.reduce((sum, w) => sum + this.joinsTo(w, seen), wire.by === 'cable' ? 1 : 0);
  }

  /** Everything that a connection carries is built first; then it is plugged, where no normal does that. */
  private bring(wire: Wire, part: string, within: readonly Wire[]): void {
    if (this.plugs.has(plugKey(wire))) return;
    this.build(idOf(wire.from), part, within);
    this.measure(wire.from, part);
    // In a loop it may still be being built: it is set all the same before anything is plugged out of it.
    this.setOnce(idOf(wire.from), part);
    this.setOnce(idOf(wire.to), part);
    const shared = wire.via === null ? undefined : this.wires.find((w) => w.to === wire.via && w.by === 'cable');
    if (this.plugs.has(plugKey(wire))) return;
    this.plugs.add(plugKey(wire));
    if (shared) this.bring(shared, part, within);
    if (wire.by === 'cable') this.acts.push({ do: 'plug', cable: { from: wire.from, to: wire.to }, part });
  }

  /** A stage with all that comes into it. */
  private build(id: string, part: string, within: readonly Wire[]): void {
    if (this.open.has(id)) return;
    this.open.add(id);
    const into = within.filter((c) => idOf(c.to) === id && !this.plugs.has(plugKey(c)));
    for (const c of into) {
      this.build(idOf(c.from), part, within);
      this.measure(c.from, part);
    }
    this.setOnce(id, part);
    for (const c of into) this.bring(c, part, within);
    this.open.delete(id);
  }

  private setOnce(id: string, part: string): void {
    if (this.set.has(id) || !this.byId.has(id)) return;
    this.set.add(id);
    const m = this.byId.get(id);
    if (m && Object.keys(m.kind.params).length > 0) this.acts.push({ do: 'set', module: id, part });
  }

  /** An output is measured once all that comes into its stage is there; stages of a loop and plain copies are not. */
  private measure(socket: string, part: string): void {
    const m = this.byId.get(idOf(socket));
    if (!m || this.measured.has(socket) || this.looped.has(m.id) || m.kind.sound?.outlet) return;
    const missing = this.wires.some((c) => idOf(c.to) === m.id && !this.plugs.has(plugKey(c)));
    if (missing) return;
    this.measured.add(socket);
    this.acts.push({ do: 'measure', socket, part });
  }
}
