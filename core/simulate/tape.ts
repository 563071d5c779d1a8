import { doubling } from '../law/affine';
import type { Atom, Affine } from '../law/affine';
import type { Arena } from '../native/native';
import type { Memory } from './memory';

/** Computes `from..to-1` of its output from its inputs' blocks. */
type Op = (from: number, to: number) => void;

/** AC coupling's corner, Hz. */
const COUPLING_HZ = 2;

/** A law as a list of block operations over buffers that are laid out once. */
export class Tape {
  private readonly ops: Op[] = [];
  private readonly buffers = new Map<Atom, Float64Array>();
  /** How many couplings there are of the same inputs. */
  private readonly couplings = new Map<string, number>();

  /** @param inputs the buffers of the law's leaves, by slot. */
  constructor(
    private readonly arena: Arena,
    private readonly memory: Memory,
    private readonly sampleRate: number,
    private readonly inputs: readonly Float64Array[],
  ) {}

  /** Writes the value into `out` at every run. */
  write(x: Affine, out: Float64Array): void {
    this.lin(x, out);
  }

  run(from: number, to: number): void {
    for (const op of this.ops) op(from, to);
  }

  private bufferOf(x: Affine): Float64Array {
    const [atom, ...more] = x.atoms;
    if (atom && more.length === 0 && x.c === 0 && x.ks[0] === 1) return this.atom(atom);
    const out = this.memory.scratch();
    this.lin(x, out);
    return out;
  }

  private lin(x: Affine, out: Float64Array): void {
    const sources = x.atoms.map((atom) => this.atom(atom));
    this.ops.push(weigh(this.arena, x.c, x.ks, sources, out));
  }

  /** What a coupling is kept under: the inputs that it is of, so that a term beside it that a knob takes away moves nothing. */
  private couplingOf(x: Affine): string {
    const of = [...slotsOf(x)].toSorted((a, b) => a - b).join();
    const before = this.couplings.get(of) ?? 0;
    this.couplings.set(of, before + 1);
    return `couple ${of} ${before}`;
  }

  private atom(atom: Atom): Float64Array {
    const known = this.buffers.get(atom);
    if (known) return known;
    if (atom.op === 'leaf') return this.inputs[atom.slot] as Float64Array;
    const a = this.bufferOf(atom.a);
    const out = this.memory.scratch();
    if (atom.op === 'mul') this.ops.push(this.arena.kernels.products(a, this.bufferOf(atom.b), out));
    else if (atom.op === 'square') this.ops.push(this.arena.kernels.products(a, a, out));
    else if (atom.op === 'clamp') this.ops.push(this.arena.kernels.clamped(a, atom.min, atom.max, out));
    else if (atom.op === 'couple')
      this.ops.push(
        couple(
          a,
          this.sampleRate,
          this.memory.keep(this.couplingOf(atom.a), () => ({ slow: null })),
          out,
        ),
      );
    else if (atom.curve === doubling) this.ops.push(this.arena.kernels.powers(a, out));
    else this.ops.push(apply(a, atom.curve.f, out));
    this.buffers.set(atom, out);
    return out;
  }
}

/** The inputs that a value hangs on. */
function slotsOf(x: Affine, found = new Set<number>()): Set<number> {
  for (const atom of x.atoms) {
    if (atom.op === 'leaf') found.add(atom.slot);
    else for (const argument of 'b' in atom ? [atom.a, atom.b] : [atom.a]) slotsOf(argument, found);
  }
  return found;
}

function weigh(
  { kernels }: Arena,
  c: number,
  ks: readonly number[],
  xs: readonly Float64Array[],
  out: Float64Array,
): Op {
  const [a, b, ...others] = xs;
  const [ka = 0, kb = 0] = ks;
  if (!a) return kernels.fill(c, out);
  if (!b) return kernels.scaled(a, ka, c, out);
  const first = kernels.sumOfTwo(a, ka, b, kb, c, out);
  if (others.length === 0) return first;
  const more = others.map((x, i) => kernels.addScaled(x, ks[i + 2] as number, out));
  return (from, to) => {
    first(from, to);
    for (const add of more) add(from, to);
  };
}

function apply(a: Float64Array, f: (x: number) => number, out: Float64Array): Op {
  return (from, to) => {
    for (let i = from; i < to; i++) out[i] = f(a[i] as number);
  };
}

/** `y = x − l`, then `l += (x − l)·(1 − e^(−2π·2·dt))`; `l` starts at the first input. */
function couple(a: Float64Array, sampleRate: number, state: { slow: number | null }, out: Float64Array): Op {
  const share = -Math.expm1((-2 * Math.PI * COUPLING_HZ) / sampleRate);
  return (from, to) => {
    let l = state.slow ?? (a[from] as number);
    for (let i = from; i < to; i++) {
      const x = a[i] as number;
      out[i] = x - l;
      l += (x - l) * share;
    }
    state.slow = l;
  };
}
