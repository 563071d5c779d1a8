import type { Atom, Lin } from '../law/lin';

/** Computes `from..to-1` of its output from its inputs' blocks. */
type Op = (from: number, to: number) => void;

/** AC coupling's corner, Hz. */
const COUPLING_HZ = 2;

/** A law as a list of block operations over buffers that are laid out once. */
export class Tape {
  private readonly ops: Op[] = [];
  private readonly buffers = new Map<Atom, Float64Array>();

  /** @param inputs the buffers of the law's leaves, by slot. */
  constructor(
    private readonly size: number,
    private readonly sampleRate: number,
    private readonly inputs: readonly Float64Array[],
  ) {}

  /** Writes the value into `out` at every run. */
  write(x: Lin, out: Float64Array): void {
    this.lin(x, out);
  }

  run(from: number, to: number): void {
    for (const op of this.ops) op(from, to);
  }

  private bufferOf(x: Lin): Float64Array {
    const [atom, ...more] = x.atoms;
    if (atom && more.length === 0 && x.c === 0 && x.ks[0] === 1) return this.atom(atom);
    const out = new Float64Array(this.size);
    this.lin(x, out);
    return out;
  }

  private lin(x: Lin, out: Float64Array): void {
    const sources = x.atoms.map((atom) => this.atom(atom));
    this.ops.push(weigh(x.c, x.ks, sources, out));
  }

  private atom(atom: Atom): Float64Array {
    const known = this.buffers.get(atom);
    if (known) return known;
    if (atom.op === 'leaf') return this.inputs[atom.slot] as Float64Array;
    const a = this.bufferOf(atom.a);
    const out = new Float64Array(this.size);
    if (atom.op === 'mul') this.ops.push(multiply(a, this.bufferOf(atom.b), out));
    else if (atom.op === 'square') this.ops.push(multiply(a, a, out));
    else if (atom.op === 'clamp') this.ops.push(clamp(a, atom.min, atom.max, out));
    else if (atom.op === 'couple') this.ops.push(couple(a, this.sampleRate, out));
    else this.ops.push(apply(a, atom.curve.f, out));
    this.buffers.set(atom, out);
    return out;
  }
}

// The loops stand in functions of their own, so that the compiler holds all they read in registers.

function weigh(c: number, ks: readonly number[], xs: readonly Float64Array[], out: Float64Array): Op {
  const [a, b] = xs;
  const [ka = 0, kb = 0] = ks;
  if (!a) return (from, to) => void out.fill(c, from, to);
  if (!b)
    return ka === 1 && c === 0 ? (from, to) => copy(a, out, from, to) : (from, to) => scaled(a, ka, c, out, from, to);
  if (xs.length === 2) return (from, to) => sumOfTwo(a, ka, b, kb, c, out, from, to);
  return (from, to) => {
    sumOfTwo(a, ka, b, kb, c, out, from, to);
    for (let j = 2; j < xs.length; j++) addScaled(xs[j] as Float64Array, ks[j] as number, out, from, to);
  };
}

function copy(a: Float64Array, out: Float64Array, from: number, to: number): void {
  for (let i = from; i < to; i++) out[i] = a[i] as number;
}

function scaled(a: Float64Array, k: number, c: number, out: Float64Array, from: number, to: number): void {
  for (let i = from; i < to; i++) out[i] = c + k * (a[i] as number);
}

function sumOfTwo(
  a: Float64Array,
  ka: number,
  b: Float64Array,
  kb: number,
  c: number,
  out: Float64Array,
  from: number,
  to: number,
): void {
  for (let i = from; i < to; i++) out[i] = c + ka * (a[i] as number) + kb * (b[i] as number);
}

function addScaled(x: Float64Array, k: number, out: Float64Array, from: number, to: number): void {
  for (let i = from; i < to; i++) out[i] = (out[i] as number) + k * (x[i] as number);
}

function multiply(a: Float64Array, b: Float64Array, out: Float64Array): Op {
  return (from, to) => products(a, b, out, from, to);
}

function products(a: Float64Array, b: Float64Array, out: Float64Array, from: number, to: number): void {
  for (let i = from; i < to; i++) out[i] = (a[i] as number) * (b[i] as number);
}

function clamp(a: Float64Array, min: number, max: number, out: Float64Array): Op {
  return (from, to) => clamped(a, min, max, out, from, to);
}

function clamped(a: Float64Array, min: number, max: number, out: Float64Array, from: number, to: number): void {
  for (let i = from; i < to; i++) {
    const x = a[i] as number;
    out[i] = x < min ? min : x > max ? max : x;
  }
}

function apply(a: Float64Array, f: (x: number) => number, out: Float64Array): Op {
  return (from, to) => {
    for (let i = from; i < to; i++) out[i] = f(a[i] as number);
  };
}

/** `y = x − l`, then `l += (x − l)·(1 − e^(−2π·2·dt))`; `l` starts at the first input. */
function couple(a: Float64Array, sampleRate: number, out: Float64Array): Op {
  const share = -Math.expm1((-2 * Math.PI * COUPLING_HZ) / sampleRate);
  let slow: number | null = null;
  return (from, to) => {
    let l = slow ?? (a[from] as number);
    for (let i = from; i < to; i++) {
      const x = a[i] as number;
      out[i] = x - l;
      l += (x - l) * share;
    }
    slow = l;
  };
}
