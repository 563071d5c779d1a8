import type { Arena } from '../native/native';

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
}
