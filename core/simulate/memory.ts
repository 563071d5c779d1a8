import type { Arena } from '../native/native';

/** What a kernel remembered at one moment. */
export interface Saved {
  readonly kept: ReadonlyMap<string, unknown>;
  readonly arrays: ReadonlyMap<string, Float64Array>;
}

type Fields = Record<string, unknown>;

const isState = (x: unknown): x is Fields =>
  typeof x === 'object' && x !== null && Object.getPrototypeOf(x) !== Object.prototype && !Array.isArray(x);

/** A copy of what changes: numbers and the states inside; what is only settings stays the very same. */
function copyOf(x: unknown): unknown {
  if (x instanceof Float64Array) return x.slice();
  return isState(x) ? fieldsOf(x) : x;
}

const fieldsOf = (x: object): Fields => Object.fromEntries(Object.entries(x).map(([name, v]) => [name, copyOf(v)]));

function putBack(into: Fields, saved: Fields): void {
  for (const [name, was] of Object.entries(saved)) {
    const now = into[name];
    if (now instanceof Float64Array && was instanceof Float64Array && now.length === was.length) now.set(was);
    else if (isState(now) && !(now instanceof Float64Array)) putBack(now, was as Fields);
    else into[name] = was instanceof Float64Array ? was.slice() : was;
  }
}

/**
 * What one kernel remembers and where it works. A kernel that is made anew for the same module, because a knob was
 * turned, gets the same again, so that it goes on where the one before it stopped.
 */
export class Memory {
  private readonly kept = new Map<string, object>();
  private readonly arrays = new Map<string, Float64Array>();
  private readonly scratches: Float64Array[] = [];
  private readonly corners: Memory[] = [];
  private next = 0;

  constructor(
    private readonly arena: Arena,
    private readonly size: number,
  ) {}

  /** Its buffers may be handed out anew. */
  begin(): this {
    this.next = 0;
    return this;
  }

  /** A buffer of the block's size; what is in it is left over. */
  scratch(): Float64Array {
    const at = this.next++;
    return (this.scratches[at] ??= this.arena.take(this.size));
  }

  numbers(name: string, count: number): Float64Array {
    const known = this.arrays.get(name);
    if (known) return known;
    const made = this.arena.take(count);
    this.arrays.set(name, made);
    return made;
  }

  keep<T extends object>(name: string, make: () => T): T {
    const known = this.kept.get(name);
    if (known) return known as T;
    const made = make();
    this.kept.set(name, made);
    return made;
  }

  /** One more of the same module, for a kernel that remembers nothing; it is not handed on. */
  beside(index: number): Memory {
    return (this.corners[index] ??= new Memory(this.arena, this.size));
  }

  /** Goes on from another's, which lies in another arena. */
  copyFrom(other: Memory): void {
    for (const [name, value] of other.kept) this.kept.set(name, value);
    for (const [name, array] of other.arrays) this.numbers(name, array.length).set(array);
  }

  /** What it remembers now, for a later `recall`. */
  save(): Saved {
    return {
      kept: new Map([...this.kept].map(([name, value]) => [name, fieldsOf(value)])),
      arrays: new Map([...this.arrays].map(([name, array]) => [name, array.slice()])),
    };
  }

  /** Remembers what it did then; kernels are made anew after it, since settings may have changed. */
  recall({ kept, arrays }: Saved): void {
    for (const [name, value] of this.kept) {
      const was = kept.get(name);
      if (was !== undefined) putBack(value as Fields, was as Fields);
    }
    for (const [name, array] of this.arrays) {
      const was = arrays.get(name);
      if (was?.length === array.length) array.set(was);
    }
  }
}
