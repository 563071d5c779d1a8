import { MINI } from './geometry';
import type { Small } from './geometry';

/** Where the paths that join from beside stand, above the strip. */

export interface Block {
  readonly right: number;
  readonly frames: number;
}

/** Rows for the smaller strips above, so that none covers another; and how many frames of each fit. */
export function stackRows(
  blocks: readonly Block[],
  left: number,
  small: Small = MINI,
): { row: number; shown: number }[] {
  const ends: number[] = [];
  const span = small.width + small.gap;
  return blocks.map(({ right, frames }) => {
    const shown = Math.max(1, Math.min(frames, Math.floor((right - left) / span)));
    const from = right - shown * span;
    let row = ends.findIndex((end) => end <= from);
    if (row < 0) row = ends.length;
    ends[row] = right + small.gap;
    return { row, shown };
  });
}

/** Where the first of a joining path's strips begins. */
export const joiningLeft = (right: number, shown: number, small: Small): number =>
  Math.max(4, right - shown * (small.width + small.gap) - 8);

/** From each joining path's line to the next path in its row: what is written there ends before it. */
export function joiningRooms(
  blocks: readonly Block[],
  rows: readonly { readonly row: number; readonly shown: number }[],
  small: Small,
): number[] {
  return blocks.map(({ right }, i) =>
    Math.min(
      Infinity,
      ...blocks.flatMap((b, j) => {
        const left = joiningLeft(b.right, rows[j]?.shown ?? 1, small);
        return j !== i && rows[j]?.row === rows[i]?.row && left >= right ? [left - right] : [];
      }),
    ),
  );
}
