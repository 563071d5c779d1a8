import { code } from './code';
import { Kernels } from './kernels';
import type { Compiled } from './compiled';

const PAGE = 65_536;
const LEAST_PAGES = 256;

let compiled: WebAssembly.Module | null = null;
let kept: Arena | null = null;

const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

/** What a base 64 text says; a sound thread has nothing of its own for that. */
function bytesOf(text: string): Uint8Array<ArrayBuffer> {
  const digits = text.replace(/=+$/, '');
  const bytes = new Uint8Array(Math.floor((digits.length * 3) / 4));
  let [bits, have, at] = [0, 0, 0];
  for (const digit of digits) {
    bits = ((bits << 6) | DIGITS.indexOf(digit)) & 0xffff;
    have += 6;
    if (have < 8) continue;
    have -= 8;
    bytes[at++] = (bits >> have) & 0xff;
  }
  return bytes;
}

/** Buffers that the kernels can reach, laid out once for a run and given back together. */
export class Arena {
  readonly kernels: Kernels;
  private readonly memory: WebAssembly.Memory;
  private next = PAGE;
  private busy = false;

  private constructor(private readonly bytes: number) {
    compiled ??= new WebAssembly.Module(bytesOf(code));
    this.memory = new WebAssembly.Memory({ initial: bytes / PAGE });
    const { exports } = new WebAssembly.Instance(compiled, { env: { memory: this.memory } });
    this.kernels = new Kernels(exports as unknown as Compiled, this.memory.buffer);
  }

  /**
   * Calls `work` with an arena of at least `doubles` numbers, all its own until `work` answers. Pages that are never
   * written cost no memory, so callers may ask for plenty.
   */
  static with<T>(doubles: number, work: (arena: Arena) => T): T {
    const bytes = PAGE * Math.max(LEAST_PAGES, Math.ceil((doubles * 8) / PAGE) + 2);
    const arena = kept && !kept.busy && kept.bytes >= bytes ? kept : new Arena(bytes);
    kept = arena;
    arena.busy = true;
    arena.next = PAGE;
    try {
      return work(arena);
    } finally {
      arena.busy = false;
    }
  }

  /** One that stays with its caller; it begins anew when asked to. */
  static owned(doubles: number): Arena {
    return new Arena(PAGE * (Math.ceil((doubles * 8) / PAGE) + 2));
  }

  /** Takes back all buffers. */
  restart(): this {
    this.next = PAGE;
    return this;
  }

  /** A buffer of zeros. One slot behind it is spare: kernels read in pairs. */
  take(length: number): Float64Array {
    const at = this.next;
    this.next += 16 * Math.ceil((length + 1) / 2);
    if (this.next > this.bytes) throw new Error(`the arena of ${this.bytes} bytes is full`);
    return new Float64Array(this.memory.buffer, at, length).fill(0);
  }
}
