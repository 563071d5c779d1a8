import type { Graph, GraphModule } from '../graph/graph';
import type { Edge, Group } from '../graph/order';
import type { Sockets } from '../kinds/kind';
import { AtomStore } from '../law/builder';
import { affine, constant, keyOf } from '../law/lin';
import type { Atom, Lin, Range } from '../law/lin';
import { tighten } from './tighten';

/** Rounds of narrowing for a loop. */
const ROUNDS = 50;
/** Boxes a value while a loop narrows; once it has, its values get all of them. */
const COARSE_BOXES = 16;

export interface EndBound {
  /** Index into the kind's `ends`. */
  readonly end: number;
  readonly drive: Range;
}

export interface ModuleBounds {
  readonly outputs: readonly Range[];
  /** The outputs before their rails and loads: what clipping takes away. */
  readonly unclipped: readonly Range[];
  readonly inputs: readonly Range[];
  readonly ends: readonly EndBound[];
}

interface Entry {
  readonly module: GraphModule;
  readonly key: string;
  readonly inputs: readonly Lin[];
  readonly outputs: readonly Lin[];
  readonly bounds: ModuleBounds;
}

const same = (a: readonly Lin[], b: readonly Lin[]): boolean => a.length === b.length && a.every((x, i) => x === b[i]);

/** All that a module's answer hangs on besides its inputs. */
function keyOfModule(m: GraphModule, railVolts: number): string {
  const wires = m.inputs.map((s) => `${s.spec.name}${s.connected ? 1 : 0}`).join();
  const loads = [m.loading.potGain, ...m.loading.weights, ...m.outputs.map((o) => o.factor)].join();
  return `${m.kind.name} ${railVolts} ${wires} ${loads} ${JSON.stringify(m.params)}`;
}

/**
 * Guaranteed ranges of every output, input and destination. Keeps what it found: after a change only the modules
 * whose own values or inputs changed are worked out again, with the same answer as from the start.
 */
export class BoundsEngine {
  private readonly store = new AtomStore();
  private readonly tight = new Map<string, Range>();
  private entries = new Map<string, Entry>();

  constructor() {
    this.store.rangeOf = (x) => this.range(x, false);
  }

  run(graph: Graph): ReadonlyMap<string, ModuleBounds> {
    const next = new Map<string, Entry>();
    const work = new Pass(graph, this.store, this.entries, next, (x, coarse) => this.range(x, coarse));
    for (const group of graph.groups) work.group(group);
    this.entries = next;
    this.forget();
    return new Map([...next].map(([id, entry]) => [id, entry.bounds]));
  }

  private range(x: Lin, coarse: boolean): Range {
    const key = keyOf(x);
    const known = this.tight.get(key);
    if (known) return known;
    if (coarse) return tighten(x, COARSE_BOXES);
    const range = tighten(x);
    this.tight.set(key, range);
    return range;
  }

  /** Lets go of atoms that no module uses any more, once they are many. */
  private forget(): void {
    if (this.store.size < 20_000) return;
    const keep = new Set<Atom>();
    const visit = (x: Lin): void => {
      for (const atom of x.atoms) {
        if (keep.has(atom)) continue;
        keep.add(atom);
        if ('a' in atom) visit(atom.a);
        if ('b' in atom) visit(atom.b);
      }
    };
    for (const entry of this.entries.values()) [...entry.inputs, ...entry.outputs].forEach(visit);
    this.store.retain(keep);
    this.tight.clear();
  }
}

class Pass {
  private readonly railVolts: number;
  private readonly outputs = new Map<number, readonly Lin[]>();
  /** What the delayed cables of a loop carry, by `module.output`. */
  private readonly delayed = new Map<string, Lin>();
  private coarse = false;
  private readonly range = (x: Lin): Range => this.tightened(x, this.coarse);

  constructor(
    private readonly graph: Graph,
    private readonly store: AtomStore,
    private readonly before: ReadonlyMap<string, Entry>,
    private readonly next: Map<string, Entry>,
    private readonly tightened: (x: Lin, coarse: boolean) => Range,
  ) {
    this.railVolts = graph.patch.settings.railVolts;
  }

  group(group: Group<Edge>): void {
    if (group.loop) this.narrow(group);
    else group.modules.forEach((m) => this.module(m));
  }

  /** From the rails inward: every round's answer is sound, and none is wider than the one before it. */
  private narrow(group: Group<Edge>): void {
    const members = group.modules.map((i) => this.graph.modules[i] as GraphModule);
    const cut = members.flatMap((m) =>
      m.inputs.flatMap((s) => (s.driver.type === 'output' && s.driver.delayed ? [s.driver] : [])),
    );
    const rail = this.railVolts;
    const ranges = new Map<string, Range>(cut.map((d) => [`${d.module}.${d.output}`, [-rail, rail]]));
    const run = (): void => {
      for (const [key, [lo, hi]] of ranges) this.delayed.set(key, this.store.leaf(`delayed ${key}`, lo, hi));
      members.forEach((m) => this.module(m.index));
    };
    this.coarse = true;
    for (let round = 0, moved = Infinity; round < ROUNDS && moved > 1e-12; round++) {
      run();
      moved = 0;
      for (const d of cut) {
        const key = `${d.module}.${d.output}`;
        const [lo, hi] = this.range((this.outputs.get(d.module) as readonly Lin[])[d.output] as Lin);
        const [oldLo, oldHi] = ranges.get(key) as Range;
        const now: Range = [Math.max(oldLo, Math.min(0, lo)), Math.min(oldHi, Math.max(0, hi))];
        moved = Math.max(moved, now[0] - oldLo, oldHi - now[1]);
        ranges.set(key, now);
      }
    }
    this.coarse = false;
    run();
  }

  private inputs(m: GraphModule): Lin[] {
    return m.inputs.map(({ driver }) => {
      if (driver.type === 'volts') return constant(driver.volts);
      if (driver.delayed) return this.delayed.get(`${driver.module}.${driver.output}`) as Lin;
      return (this.outputs.get(driver.module) as readonly Lin[])[driver.output] as Lin;
    });
  }

  private module(index: number): void {
    const m = this.graph.modules[index] as GraphModule;
    const key = `${keyOfModule(m, this.railVolts)}${this.coarse ? ' coarse' : ''}`;
    const inputs = this.inputs(m);
    const known = this.next.get(m.id) ?? this.before.get(m.id);
    const entry = known && known.key === key && same(known.inputs, inputs) ? known : this.work(m, key, inputs);
    this.outputs.set(index, entry.outputs);
    this.next.set(m.id, entry);
  }

  private work(m: GraphModule, key: string, inputs: readonly Lin[]): Entry {
    const rail = this.railVolts;
    const byName = new Map(m.inputs.map((s, i) => [s.spec.name, i]));
    const io: Sockets = {
      in: (name) => inputs[byName.get(name) ?? -1] ?? constant(0),
      connected: (name) => m.inputs[byName.get(name) ?? -1]?.connected ?? false,
      symbol: (name, lo, hi) =>
        this.store.leaf(`${m.id}.${name}`, Math.max(-rail, Math.min(rail, lo)), Math.min(rail, Math.max(-rail, hi))),
      range: this.range,
      loading: m.loading,
    };
    const law = m.kind.law(this.store, m.params, io);
    const outputs = m.outputs.map((o) => affine(this.saturate(law[o.name] ?? constant(0)), o.factor));
    const ends = (m.kind.ends ?? []).map((end, i) => ({
      end: i,
      drive: this.range(end.drive(this.store, m.params, io)),
    }));
    const unclipped = m.outputs.map((o) => this.range(law[o.name] ?? constant(0)));
    const bounds = { outputs: outputs.map(this.range), unclipped, inputs: inputs.map(this.range), ends };
    return { module: m, key, inputs, outputs, bounds };
  }

  /** The rails; left out where the value is sure to stay inside. */
  private saturate(x: Lin): Lin {
    const rail = this.railVolts;
    const [lo, hi] = this.range(x);
    return lo >= -rail && hi <= rail ? x : this.store.clamp(x, -rail, rail);
  }
}
