import { code } from './code';

/** An address in the kernels' memory, bytes. */
type Address = number;

/** The functions of kernels/, which says what they do. */
export interface Kernels {
  fill(c: number, out: Address, n: number): void;
  scaled(x: Address, k: number, c: number, out: Address, n: number): void;
  sumOfTwo(a: Address, ka: number, b: Address, kb: number, c: number, out: Address, n: number): void;
  addScaled(x: Address, k: number, out: Address, n: number): void;
  products(a: Address, b: Address, out: Address, n: number): void;
  powers(x: Address, out: Address, n: number): void;
  clamped(x: Address, min: number, max: number, out: Address, n: number): void;
  saturate(x: Address, n: number, rail: number, factor: number, counts: Address): void;
  extremesAndSums(x: Address, n: number, acc: Address): void;
  extremes(x: Address, n: number, acc: Address): void;
  countOutside(x: Address, n: number, low: number, high: number, acc: Address): void;
  phases(start: number, hertz: number, k: number, sampleRate: number, out: Address, n: number): void;
  withinCycles(x: Address, out: Address, n: number): void;
  sine(cycles: Address, shift: number, mid: number, half: number, out: Address, n: number): void;
  triangle(cycles: Address, shift: number, mid: number, half: number, out: Address, n: number): void;
  ramp(cycles: Address, shift: number, mid: number, half: number, out: Address, n: number): void;
  square(cycles: Address, shift: number, width: number, mid: number, half: number, out: Address, n: number): void;
  saw(phase: Address, steps: Address, mid: number, half: number, out: Address, n: number): void;
  pulse(
    phase: Address,
    steps: Address,
    pwm: Address,
    width: number,
    amount: number,
    mid: number,
    half: number,
    out: Address,
    n: number,
  ): void;
  cutoffs(
    a: Address,
    ka: number,
    b: Address,
    kb: number,
    c: Address,
    hertz: number,
    lowest: number,
    highest: number,
    perHertz: number,
    out: Address,
    n: number,
  ): void;
  stateVariable(
    x: Address,
    gs: Address,
    damping: number,
    state: Address,
    lowpass: Address,
    bandpass: Address,
    highpass: Address,
    n: number,
  ): void;
  lineSlew(x: Address, ups: Address, downs: Address, v: number, out: Address, n: number): number;
  shareSlew(x: Address, ups: Address, downs: Address, v: number, out: Address, n: number): number;
}

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
    this.kernels = exports as unknown as Kernels;
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

  /** A buffer of zeros. One slot behind it is spare, for kernels that work on pairs. */
  take(length: number): Float64Array {
    const at = this.next;
    this.next += 16 * Math.ceil((length + 1) / 2);
    if (this.next > this.bytes) throw new Error(`the arena of ${this.bytes} bytes is full`);
    return new Float64Array(this.memory.buffer, at, length).fill(0);
  }
}
