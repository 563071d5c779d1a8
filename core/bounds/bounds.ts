import type { Graph } from '../graph/graph';
import { AtomStore } from '../law/builder';
import type { Atom, Affine, Range } from '../law/affine';
import type { Entry, Loop, ModuleBounds } from './entries';
import { Pass } from './pass';
import { Tightener } from './tighten';
import type { Closeness } from './tighten';

export type { ModuleBounds } from './entries';

/**
 * Guaranteed ranges of every output, input and destination. Keeps what it found: after a change only the modules
 * whose own values or inputs changed are worked out again, with the same answer as from the start.
 */
export class BoundsEngine {
  private readonly store = new AtomStore((x) => this.tightener.range(x));
  private readonly tightener: Tightener;
  private entries = new Map<string, Entry>();
  private loops = new Map<string, Loop>();

  /** @param closeness how close to the true range; as a prediction's where it is left out. */
  constructor(closeness?: Closeness) {
    this.tightener = new Tightener(closeness);
  }

  run(graph: Graph): ReadonlyMap<string, ModuleBounds> {
    const next = new Map<string, Entry>();
    const loops = new Map<string, Loop>();
    const before = { entries: this.entries, loops: this.loops };
    const work = new Pass(graph, this.store, before, { entries: next, loops }, this.tightener);
    for (const group of graph.groups) work.group(group);
    this.entries = next;
    this.loops = loops;
    this.forget();
    return new Map([...next].map(([id, entry]) => [id, entry.bounds]));
  }

  /** The values of a module of the last run, before their ranges: for sums and differences of them. */
  valuesOf(id: string): Pick<Entry, 'inputs' | 'outputs' | 'drives'> | null {
    return this.entries.get(id) ?? null;
  }

  /** How far a value can go, tightened. */
  range(x: Affine): Range {
    return this.tightener.range(x);
  }

  /** Drops atoms that no module uses any more, once there are many. */
  private forget(): void {
    if (this.store.size < 20_000) return;
    const keep = new Set<Atom>();
    const visit = (x: Affine): void => {
      for (const atom of x.atoms) {
        if (keep.has(atom)) continue;
        keep.add(atom);
        if ('a' in atom) visit(atom.a);
        if ('b' in atom) visit(atom.b);
      }
    };
    for (const entry of this.entries.values()) [...entry.inputs, ...entry.outputs].forEach(visit);
    this.store.retain(keep);
    this.tightener.forget();
  }
}
