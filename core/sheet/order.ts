import { idOf } from '../document/sockets';
import type { Cable } from '../document/types';
import type { Graph, GraphModule } from '../graph/graph';
import { soundOf } from '../graph/sound';

/** One thing to do, before it is told in words. */
export type Act =
  | { readonly do: 'set'; readonly module: string; readonly part: string }
  | { readonly do: 'plug'; readonly cable: Cable; readonly part: string }
  | { readonly do: 'measure'; readonly socket: string; readonly part: string }
  | { readonly do: 'listen'; readonly end: string; readonly part: string };

const plugKey = (c: Cable): string => `${c.from} ${c.to}`;

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

  constructor(private readonly graph: Graph) {
    this.byId = new Map(graph.modules.map((m) => [m.id, m]));
    this.looped = new Set(
      graph.groups.filter((g) => g.loop).flatMap((g) => g.modules.map((i) => graph.modules[i]?.id ?? '')),
    );
  }

  run(): Act[] {
    const sound = soundOf(this.graph);
    for (const cable of sound.cables.toReversed()) this.bring(cable, 'sound', sound.cables);
    for (const id of sound.modules) this.setOnce(id, 'sound');
    for (let ends = this.endsLeft(sound.modules); ends.length > 0; ends = this.endsLeft(sound.modules)) {
      const [next] = ends;
      if (!next) break;
      const part = `path ${next.to}`;
      this.bring(next, part, this.graph.patch.cables);
      this.acts.push({ do: 'listen', end: next.to, part });
    }
    for (const cable of this.graph.patch.cables) this.bring(cable, `path ${cable.to}`, this.graph.patch.cables);
    for (const m of this.graph.modules) this.setOnce(m.id, `path ${m.id}`);
    return this.acts;
  }

  /** What leads into the sound or into what leads nowhere, that with the fewest cables to plug first. */
  private endsLeft(sound: ReadonlySet<string>): Cable[] {
    const { cables } = this.graph.patch;
    const onward = new Set(cables.map((c) => idOf(c.from)));
    const joins = new Map<string, number>();
    return cables
      .filter((c) => !this.plugs.has(plugKey(c)) && (sound.has(idOf(c.to)) || !onward.has(idOf(c.to))))
      .map((c) => {
        joins.set(c.to, this.joinsTo(c));
        return c;
      })
      .sort((a, b) => (joins.get(a.to) ?? 0) - (joins.get(b.to) ?? 0) || (a.to < b.to ? -1 : 1));
  }

  /** The cables that must be plugged before one carries what it shall, itself included. */
  private joinsTo(cable: Cable, seen = new Set<string>()): number {
    if (this.plugs.has(plugKey(cable)) || seen.has(plugKey(cable))) return 0;
    seen.add(plugKey(cable));
    const before = this.graph.patch.cables.filter((c) => idOf(c.to) === idOf(cable.from));
    return before.reduce((sum, c) => sum + this.joinsTo(c, seen), 1);
  }

  /** Everything that a cable carries is built first, then it is plugged. */
  private bring(cable: Cable, part: string, within: readonly Cable[]): void {
    if (this.plugs.has(plugKey(cable))) return;
    this.build(idOf(cable.from), part, within);
    this.measure(cable.from, part);
    this.setOnce(idOf(cable.to), part);
    if (this.plugs.has(plugKey(cable))) return;
    this.plugs.add(plugKey(cable));
    this.acts.push({ do: 'plug', cable, part });
  }

  /** A stage with all that comes into it. */
  private build(id: string, part: string, within: readonly Cable[]): void {
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
    if (!m || this.measured.has(socket) || this.looped.has(m.id) || m.kind.outlet) return;
    const missing = this.graph.patch.cables.some((c) => idOf(c.to) === m.id && !this.plugs.has(plugKey(c)));
    if (missing) return;
    this.measured.add(socket);
    this.acts.push({ do: 'measure', socket, part });
  }
}
