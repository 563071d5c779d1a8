import {
  add,
  affine,
  clampRange,
  constant,
  curveRange,
  isConstant,
  idOf,
  ofAtom,
  productRange,
  relation,
  squareRange,
} from './affine';
import type { Atom, Curve, Affine, Range } from './affine';
import { Hash } from './hash';

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

const ranged = ([lo, hi]: Range): { lo: number; hi: number } => ({ lo, hi });

/** What an atom is, and of what. */
const made = (op: Atom['op'], x: Affine): Hash => new Hash().text(op).number(idOf(x));

/** Makes atoms and gives equal atoms one identity, so that equal signals cancel wherever they were made. */
export class AtomStore implements Laws {
  private readonly atoms = new Map<number, Atom>();

  /** @param rangeOf how far a value can go; by interval arithmetic where it is left out. */
  constructor(private readonly rangeOf: (x: Affine) => Range = (x) => [x.lo, x.hi]) {}

  /** Forgets every atom that `keep` does not name, so that a long session does not grow. */
  retain(keep: ReadonlySet<Atom>): void {
    for (const [id, atom] of this.atoms) if (!keep.has(atom)) this.atoms.delete(id);
  }

  get size(): number {
    return this.atoms.size;
  }

  /** The atom of that identity, made where there is none yet. */
  private atom(id: number, make: () => Atom): Affine {
    let atom = this.atoms.get(id);
    if (!atom) {
      atom = make();
      this.atoms.set(id, atom);
    }
    return ofAtom(atom);
  }

  /** An independent value: for bounds a symbol in its range, for simulation an input's buffer `slot`. */
  leaf(name: string, lo: number, hi: number, slot = -1): Affine {
    return this.symbol(0, name, lo, hi, slot);
  }

  /** The same, of something that a hash tells. */
  symbol(of: number, name: string, lo: number, hi: number, slot = -1): Affine {
    if (lo === hi) return constant(lo);
    const id = new Hash().text('leaf').number(of).text(name).number(lo).number(hi).sum;
    return this.atom(id, () => ({ op: 'leaf', slot, id, lo, hi }));
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
    const [x, y] = idOf(a) <= idOf(b) ? [a, b] : [b, a];
    const id = made('mul', x).number(idOf(y)).sum;
    return this.atom(id, () => ({ op: 'mul', a: x, b: y, id, ...ranged(productRange([x.lo, x.hi], [y.lo, y.hi])) }));
  }

  /** `(k*b + d)*b`, completed to a square so that its lowest value is exact. */
  private tiedProduct(b: Affine, k: number, d: number): Affine {
    const root = affine(b, 1, d / (2 * k));
    const id = made('square', root).sum;
    const square = this.atom(id, () => ({ op: 'square', a: root, id, ...ranged(squareRange(root.lo, root.hi)) }));
    return affine(square, k, -(d * d) / (4 * k));
  }

  clamp(x: Affine, min: number, max: number): Affine {
    if (x.lo >= min && x.hi <= max) return x;
    if (isConstant(x)) return constant(Math.min(max, Math.max(min, x.c)));
    const range = clampRange([x.lo, x.hi], min, max);
    if (range[0] === range[1]) return constant(range[0]);
    const id = made('clamp', x).number(min).number(max).sum;
    return this.atom(id, () => ({ op: 'clamp', a: x, min, max, id, ...ranged(range) }));
  }

  curve(x: Affine, curve: Curve): Affine {
    if (isConstant(x)) return constant(curve.f(x.c));
    const id = made('curve', x).text(curve.key).sum;
    return this.atom(id, () => ({ op: 'curve', a: x, curve, id, ...ranged(curveRange(curve, x.lo, x.hi)) }));
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
    const id = made('couple', x).sum;
    return this.atom(id, () => ({ op: 'couple', a: x, id, lo: lo - hi, hi: hi - lo }));
  }
}

const absolute: Curve = { key: 'abs', f: Math.abs, kinks: [0] };
