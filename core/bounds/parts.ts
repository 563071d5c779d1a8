import { idOf } from '../law/affine';
import type { Atom, Affine } from '../law/affine';

/** What a box has a dimension for. */
export const isSource = (atom: Atom): boolean => atom.op === 'leaf' || atom.op === 'couple';

/** The values that an atom is made of. */
export function argumentsOf(atom: Atom): readonly Affine[] {
  if (isSource(atom)) return [];
  return 'b' in atom ? [atom.a, atom.b] : 'a' in atom ? [atom.a] : [];
}

interface Node {
  readonly below: readonly Node[];
  uses: number;
  /** In order from the root, each after all that use it. */
  place: number;
  above: Node | undefined;
  depth: number;
  /** How near to the root something below is used past this node. */
  escape: number;
}

const nearest = (a: Node, b: Node): Node => {
  let [x, y] = [a, b];
  while (x !== y) {
    if (x.place > y.place) x = x.above as Node;
    else y = y.above as Node;
  }
  return x;
};

/**
 * Which parts of a value are closed: used by the rest of it only as a whole, so that no source inside is seen
 * outside. They are what dominates all below it (Cooper, Harvey and Kennedy, "A Simple, Fast Dominance Algorithm",
 * 2001; one pass, since nothing here is circular).
 */
export class Parts {
  private readonly lins = new Map<number, Node>();
  private readonly atoms = new Map<Atom, Node>();
  private readonly order: Node[] = [];

  constructor(root: Affine | Atom) {
    if ('op' in root) this.atom(root);
    else this.lin(root);
    this.order.reverse();
    this.order.forEach((node, i) => (node.place = i));
    for (const node of this.order) {
      node.depth = node.above ? node.above.depth + 1 : 0;
      for (const low of node.below) {
        low.above = low.above ? nearest(low.above, node) : node;
        low.uses++;
      }
    }
    for (const node of this.order.toReversed()) {
      for (const low of node.below) node.escape = Math.min(node.escape, (low.above as Node).depth, low.escape);
    }
  }

  closed(part: Affine | Atom): boolean {
    const node = this.node(part);
    return node !== undefined && node.escape >= node.depth;
  }

  /** Closed, and used in one place. */
  apart(part: Affine | Atom): boolean {
    return this.closed(part) && this.node(part)?.uses === 1;
  }

  private node(part: Affine | Atom): Node | undefined {
    return 'op' in part ? this.atoms.get(part) : this.lins.get(idOf(part));
  }

  private lin(x: Affine): Node {
    const key = idOf(x);
    return (
      this.lins.get(key) ??
      this.put(
        this.lins,
        key,
        x.atoms.map((atom) => this.atom(atom)),
      )
    );
  }

  private atom(atom: Atom): Node {
    return (
      this.atoms.get(atom) ??
      this.put(
        this.atoms,
        atom,
        argumentsOf(atom).map((x) => this.lin(x)),
      )
    );
  }

  private put<K>(known: Map<K, Node>, key: K, below: readonly Node[]): Node {
    const node: Node = { below, uses: 0, place: 0, above: undefined, depth: 0, escape: Infinity };
    known.set(key, node);
    this.order.push(node);
    return node;
  }
}
