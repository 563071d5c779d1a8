import { idOf, ofAtom, scaledRange } from '../law/affine';
import type { Atom, Affine, Range } from '../law/affine';
import { isSource } from './parts';
import type { Parts } from './parts';

/**
 * The same value over fewer sources: each closed part that `rangeOf` knows the exact range of becomes one source in
 * that range, and sources that are only ever used in one proportion become one.
 */
export function reduce(x: Affine, parts: Parts, rangeOf: (part: Affine | Atom) => Range | null): Affine {
  let made = 0;
  const known = new Map<Atom | number, Atom | null>();
  const symbolFor = (part: Affine | Atom): Atom | null => {
    const key = 'op' in part ? part : idOf(part);
    let symbol = known.get(key);
    if (symbol === undefined) {
      const range = parts.closed(part) ? rangeOf(part) : null;
      symbol = range && symbolOf(range, made++);
      known.set(key, symbol);
    }
    return symbol;
  };
  const fewer = rebuilt(x, {
    atom: symbolFor,
    lin: (part) => {
      const symbol = part === x || part.atoms.length < 2 ? null : symbolFor(part);
      return symbol ? ofAtom(symbol) : part;
    },
  });
  return joined(fewer, () => made++);
}

const symbolOf = ([lo, hi]: Range, n: number): Atom => ({ op: 'leaf', slot: -1, id: -1 - n, lo, hi });

interface Use {
  readonly atom: Atom;
  readonly k: number;
  signature: string;
}

function joined(x: Affine, number: () => number): Affine {
  const uses = new Map<Atom, Use>();
  let lins = 0;
  rebuilt(x, {
    atom: () => null,
    lin: (part) => {
      part.atoms.forEach((atom, i) => {
        if (!isSource(atom)) return;
        const k = part.ks[i] as number;
        const use = uses.get(atom) ?? { atom, k, signature: '' };
        use.signature += `${lins}:${k / use.k} `;
        uses.set(atom, use);
      });
      lins++;
      return part;
    },
  });
  const groups = new Map<string, Use[]>();
  for (const use of uses.values()) groups.set(use.signature, [...(groups.get(use.signature) ?? []), use]);
  const leaders = new Map<Atom, Atom>();
  const led = new Set<Atom>();
  for (const [first, ...others] of groups.values()) {
    if (!first || others.length === 0) continue;
    let [lo, hi] = [first.atom.lo, first.atom.hi];
    for (const { atom, k } of others) {
      const [from, to] = scaledRange([atom.lo, atom.hi], k / first.k);
      lo += from;
      hi += to;
      led.add(atom);
    }
    leaders.set(first.atom, symbolOf([lo, hi], number()));
  }
  if (leaders.size === 0) return x;
  return rebuilt(x, {
    atom: () => null,
    lin: (part) => {
      const kept = part.atoms.flatMap((atom, i) => (led.has(atom) ? [] : [i]));
      const atoms = kept.map((i) => leaders.get(part.atoms[i] as Atom) ?? (part.atoms[i] as Atom));
      return { ...part, atoms, ks: kept.map((i) => part.ks[i] as number) };
    },
  });
}

interface Instead {
  readonly atom: (atom: Atom) => Atom | null;
  readonly lin: (x: Affine) => Affine;
}

/** Rebuilds a value with other parts, each once; sources stay as they are. */
function rebuilt(root: Affine, instead: Instead): Affine {
  const atoms = new Map<Atom, Atom>();
  const lins = new Map<number, Affine>();
  const ofAtom = (atom: Atom): Atom => {
    if (isSource(atom)) return atom;
    let known = atoms.get(atom);
    if (!known) {
      known = instead.atom(atom) ?? withArguments(atom, ofLin);
      atoms.set(atom, known);
    }
    return known;
  };
  const ofLin = (x: Affine): Affine => {
    const key = idOf(x);
    let known = lins.get(key);
    if (!known) {
      const other = instead.lin(x);
      known = { ...other, atoms: other.atoms.map(ofAtom) };
      lins.set(key, known);
    }
    return known;
  };
  return ofLin(root);
}

function withArguments(atom: Atom, of: (x: Affine) => Affine): Atom {
  if (atom.op === 'mul') return { ...atom, a: of(atom.a), b: of(atom.b) };
  return 'a' in atom ? { ...atom, a: of(atom.a) } : atom;
}
