import { MINI } from './geometry';
import type { Small } from './geometry';

/** Where the paths that join from beside stand, above the strip. */

export interface Block {
  readonly right: number;
  readonly frames: number;
}

/** The leftmost that a path may begin, and how far its last strip ends before its way down. */
const [EDGE, BEFORE] = [4, 14];

/** Where the first of a joining path's strips begins. */
export const joiningLeft = (right: number, shown: number, small: Small): number =>
  Math.max(EDGE, right - shown * (small.width + small.gap) - 8);

/** How wide each of a joining path's strips is: where it joins far to the left, as wide as there is room. */
export const joiningWidth = (right: number, shown: number, small: Small): number =>
  Math.min(small.width, (right - BEFORE - EDGE - (shown - 1) * small.gap) / shown);

/**
 * Rows for the smaller strips above, the top one first, and how many frames of each fit. None covers another, and none
 * stands in another's way down to where it joins: what joins further right stands higher.
 */
export function stackRows(
  blocks: readonly Block[],
  left: number,
  small: Small = MINI,
): { row: number; shown: number }[] {
  const span = small.width + small.gap;
  const rows = blocks.map(({ right, frames }) => ({
    row: 0,
    shown: Math.max(1, Math.min(frames, Math.floor((right - left) / span))),
  }));
  const placed: { readonly from: number; readonly row: number }[] = [];
  const fromRight = blocks.map(({ right }, i) => ({ right, own: rows[i] })).toSorted((a, b) => b.right - a.right);
  for (const { right, own } of fromRight) {
    if (!own) continue;
    const over = placed.filter((p) => p.from < right + small.gap);
    own.row = Math.max(-1, ...over.map((p) => p.row)) + 1;
    placed.push({ from: joiningLeft(right, own.shown, small), row: own.row });
  }
  return rows;
}

/** From each joining path's line to what stands next in its row, a path or the way down of one: writing ends before it. */
export function joiningRooms(
  blocks: readonly Block[],
  rows: readonly { readonly row: number; readonly shown: number }[],
  small: Small,
): number[] {
  const rowOf = (i: number): number => rows[i]?.row ?? 0;
  return blocks.map(({ right }, i) => {
    const ends = blocks.flatMap((other, j) => {
      if (other.right <= right) return [];
      if (rowOf(j) < rowOf(i)) return [other.right - right];
      return rowOf(j) === rowOf(i) ? [joiningLeft(other.right, rows[j]?.shown ?? 1, small) - right] : [];
    });
    return Math.min(Infinity, ...ends);
  });
}
