import {
  add,
  affine,
  clampRange,
  constant,
  curveRange,
  isConstant,
  keyOf,
  ofAtom,
  productRange,
  relation,
  squareRange,
} from './affine';
import type { Atom, Curve, Affine, Range } from './affine';

type AtomBody = Atom extends infer A ? (A extends Atom ? Omit<A, 'id' | 'key' | 'lo' | 'hi'> : never) : never;

/** What a kind's law may use to say what its outputs are. */
export interface Laws {
  constant(volts: number): Affine;
  /** The sum of `k_i * x_i`. */
  sum(...terms: readonly (readonly [Affine, number])[]): Affine;
  scale(x: Affine, k: number, shift?: number): Affine;
  mul(a: Affine, b: Affine): Affine;
  clamp(x: Affine, min: number, max: number): Affine;
  curve(x: Affine, curve: Curve): Affine;
  abs(x: Affine): Affine;
  min(a: Affine, b: Affine): Affine;
  max(a: Affine, b: Affine): Affine;
  /** AC coupling: what is left when the slow average is taken away. */
  couple(x: Affine): Affine;
}

/** A 53-bit hash of the key: the same whatever was made before, so that answers do not depend on history. */
function identity(key: string): number {
  let [a, b] = [0xdeadbeef, 0x41c6ce57];
  for (let i = 0; i < key.length; i++) {
    const ch = key.charCodeAt(i);
    a = Math.imul(a ^ ch, 2654435761);
    b = Math.imul(b ^ ch, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return 4294967296 * (2097151 & b) + (a >>> 0);
}

const ends = new Float64Array(2);
const words = new Int32Array(ends.buffer);

/** A range by its bits: told apart as exactly as by its decimals, and made in a quarter of the time. */
function rangeKey(lo: number, hi: number): string {
  // The two zeros are one.
  ends[0] = lo + 0;
  ends[1] = hi + 0;
  return `${words[0]} ${words[1]} ${words[2]} ${words[3]}`;
}

/** Makes atoms and gives equal atoms one identity, so that equal signals cancel wherever they were made. */
export class AtomStore implements Laws {
  private readonly atoms = new Map<string, Atom>();
  /** How far a value can go; the bounds engine puts its tightened answer here. */
  rangeOf: (x: Affine) => Range = (x) => [x.lo, x.hi];

  /** Forgets every atom that `keep` does not name, so that a long session does not grow. */
  retain(keep: ReadonlySet<Atom>): void {
    for (const [key, atom] of this.atoms) if (!keep.has(atom)) this.atoms.delete(key);
  }

  get size(): number {
    return this.atoms.size;
  }

  private make(key: string, body: AtomBody, [lo, hi]: Range): Affine {
    let atom = this.atoms.get(key);
    if (!atom) {
      atom = { ...body, id: identity(key), key, lo, hi };
      this.atoms.set(key, atom);
    }
    return ofAtom(atom);
  }

  /** An independent value: for bounds a symbol in its range, for simulation an input's buffer `slot`. */
  leaf(name: string, lo: number, hi: number, slot = -1): Affine {
    if (lo === hi) return constant(lo);
    return this.make(`leaf ${name} ${rangeKey(lo, hi)}`, { op: 'leaf', slot }, [lo, hi]);
  }

  constant(volts: number): Affine {
    return constant(volts);
  }

  sum(...terms: readonly (readonly [Affine, number])[]): Affine {
    return terms.reduce<Affine>((total, [x, k]) => add(total, x, k), constant(0));
  }

  scale(x: Affine, k: number, shift = 0): Affine {
    return affine(x, k, shift);
  }

  mul(a: Affine, b: Affine): Affine {
    if (isConstant(a)) return affine(b, a.c);
    if (isConstant(b)) return affine(a, b.c);
    const tied = relation(a, b);
    if (tied) return this.tiedProduct(b, tied.scale, tied.shift);
    const [x, y] = keyOf(a) <= keyOf(b) ? [a, b] : [b, a];
    const body = { op: 'mul', a: x, b: y } as const;
    return this.make(`mul ${keyOf(x)} ${keyOf(y)}`, body, productRange([x.lo, x.hi], [y.lo, y.hi]));
  }

  /** `(k*b + d)*b`, completed to a square so that its lowest value is exact. */
  private tiedProduct(b: Affine, k: number, d: number): Affine {
    const root = affine(b, 1, d / (2 * k));
    const square = this.make(`square ${keyOf(root)}`, { op: 'square', a: root }, squareRange(root.lo, root.hi));
    return affine(square, k, -(d * d) / (4 * k));
  }

  clamp(x: Affine, min: number, max: number): Affine {
    if (x.lo >= min && x.hi <= max) return x;
    if (isConstant(x)) return constant(Math.min(max, Math.max(min, x.c)));
    const range = clampRange([x.lo, x.hi], min, max);
    if (range[0] === range[1]) return constant(range[0]);
    return this.make(`clamp ${keyOf(x)} ${min} ${max}`, { op: 'clamp', a: x, min, max }, range);
  }

  curve(x: Affine, curve: Curve): Affine {
    if (isConstant(x)) return constant(curve.f(x.c));
    const body = { op: 'curve', a: x, curve } as const;
    return this.make(`curve ${curve.key} ${keyOf(x)}`, body, curveRange(curve, x.lo, x.hi));
  }

  abs(x: Affine): Affine {
    if (x.lo >= 0) return x;
    if (x.hi <= 0) return affine(x, -1);
    return this.curve(x, absolute);
  }

  max(a: Affine, b: Affine): Affine {
    return add(a, this.clamp(add(b, a, -1), 0, Infinity));
  }

  min(a: Affine, b: Affine): Affine {
    return add(a, this.clamp(add(b, a, -1), -Infinity, 0));
  }

  couple(x: Affine): Affine {
    if (isConstant(x)) return constant(0);
    const [lo, hi] = this.rangeOf(x);
    return this.make(`couple ${keyOf(x)}`, { op: 'couple', a: x }, [lo - hi, hi - lo]);
  }
}

const absolute: Curve = { key: 'abs', f: Math.abs, kinks: [0] };
