import { clampRange, curveRange, idOf, ofAtom, productRange, scaledRange, squareRange } from '../law/affine';
import type { Atom, Affine, Range } from '../law/affine';
import { roundingOf } from './cone';
import { Parts, argumentsOf, isSource } from './parts';
import { reduce } from './reduce';
import { Search } from './search';

/** Counts, not times, so that an answer does not depend on the machine. */
const MOST_BOXES = 4096;
/** For a part of a value, and for a loop while it narrows. */
const PART_BOXES = 512;
const COARSE_BOXES = 16;
/** How far from the true range an answer may be, of its span. */
const WITHIN = 0.002;
/** For a part: what is made of it can magnify what is missing. */
const PART_SHARE = 1 / 20;

/** How close an answer must come, and how many boxes it may take. */
export interface Closeness {
  /** Of the span, 0..1. */
  readonly within: number;
  readonly boxes: number;
}

/**
 * Ranges of values, by affine arithmetic tightened with branch and bound: sound always, and within 0.5% of the true
 * span unless 4096 boxes do not suffice. Parts that share no source with the rest are solved by themselves, once.
 */
export class Tightener {
  private readonly ranges = new Map<number, Range>();
  private readonly coarseRanges = new Map<number, Range>();
  private readonly parts = new Map<Atom | number, Range | null>();

  constructor(private readonly closeness: Closeness = { within: WITHIN, boxes: MOST_BOXES }) {}

  /** Sound and, as far as the boxes reach, tight. */
  range(x: Affine): Range {
    if (isSum(x)) return [x.lo, x.hi];
    const key = idOf(x);
    let range = this.ranges.get(key);
    if (!range) {
      const found = this.solve(x, (rest, parts) => {
        const fewer = reduce(rest, parts, (part) => this.part(part));
        return new Search(fewer, this.closeness.boxes, this.closeness.within).range();
      });
      range = found ?? [x.lo, x.hi];
      this.ranges.set(key, range);
    }
    return range;
  }

  /** A first, wider answer. */
  coarse(x: Affine): Range {
    if (isSum(x)) return [x.lo, x.hi];
    const key = idOf(x);
    let range = this.coarseRanges.get(key);
    if (!range) {
      range = isLarge(x) ? [x.lo, x.hi] : new Search(x, COARSE_BOXES, WITHIN).range();
      this.coarseRanges.set(key, range);
    }
    return range;
  }

  /** Drops the wider answers: a loop that has narrowed does not ask for them again. */
  narrowed(): void {
    this.coarseRanges.clear();
  }

  /** Drops all that was found. */
  forget(): void {
    this.ranges.clear();
    this.parts.clear();
  }

  /** The closed terms of a sum by themselves, the rest by `search`. */
  private solve(x: Affine, search: (rest: Affine, parts: Parts) => Range | null): Range | null {
    if (isSum(x)) return [x.lo, x.hi];
    const parts = new Parts(x);
    const rest: number[] = [];
    let [lo, hi, size] = [x.c, x.c, Math.abs(x.c)];
    const add = ([from, to]: Range): void => {
      lo += from;
      hi += to;
      size += Math.max(Math.abs(from), Math.abs(to));
    };
    x.atoms.forEach((atom, i) => {
      const range = parts.apart(atom) ? this.part(atom) : null;
      if (range) add(scaledRange(range, x.ks[i] as number));
      else rest.push(i);
    });
    if (rest.length > 0) {
      const atoms = rest.map((i) => x.atoms[i] as Atom);
      const found = search({ ...x, c: 0, atoms, ks: rest.map((i) => x.ks[i] as number) }, parts);
      if (!found) return null;
      add(found);
    }
    const slack = roundingOf(size);
    return [lo - slack, hi + slack];
  }

  /** The range of a part, or null where it is not found closely enough. */
  private part(part: Affine | Atom): Range | null {
    const key = 'op' in part ? part : idOf(part);
    let range = this.parts.get(key);
    if (range === undefined) {
      range = 'op' in part ? this.atom(part) : this.solve(part, (rest, parts) => this.closely(rest, parts));
      this.parts.set(key, range);
    }
    return range;
  }

  private atom(atom: Atom): Range | null {
    if (atom.op === 'leaf' || atom.op === 'couple') return [atom.lo, atom.hi];
    if (atom.op === 'mul') {
      const parts = new Parts(atom);
      if (!parts.apart(atom.a) || !parts.apart(atom.b)) return this.closely(ofAtom(atom), parts, atom);
      const [a, b] = [this.part(atom.a), this.part(atom.b)];
      return a && b && productRange(a, b);
    }
    const a = this.part(atom.a);
    if (!a) return null;
    if (atom.op === 'square') return squareRange(...a);
    return atom.op === 'curve' ? curveRange(atom.curve, ...a) : clampRange(a, atom.min, atom.max);
  }

  /** By search, if what it is made of is found closely too. */
  private closely(x: Affine, parts: Parts, itself?: Atom): Range | null {
    let all = true;
    const fewer = reduce(x, parts, (part) => {
      const range = part === itself ? null : this.part(part);
      all &&= range !== null || part === itself;
      return range;
    });
    if (!all) return null;
    const search = new Search(fewer, PART_BOXES, this.closeness.within * PART_SHARE);
    const range = search.range();
    return search.close ? range : null;
  }
}

/** A value of more atoms than this is not searched while its loop still narrows. */
const LARGE = 60;

function isLarge(x: Affine): boolean {
  const seen = new Set<Atom>();
  const visit = (atom: Atom): boolean => {
    if (seen.has(atom)) return false;
    seen.add(atom);
    return seen.size > LARGE || argumentsOf(atom).some((lin) => lin.atoms.some(visit));
  };
  return x.atoms.some(visit);
}

const isSum = (x: Affine): boolean => x.atoms.every(isSource);

/** The range of one value, from nothing. */
export const tighten = (x: Affine): Range => new Tightener().range(x);
