import { showNumber } from '@/core';
import type { PictureData } from '@/wire/core';

/** From a height to a lower one, pixels. */
export type Reach = readonly [top: number, bottom: number];

/** How far a figure of 12 pixels stands over its base line and under it, with a little air. */
const RISE = 12;
const FALL = 4;
/** A letter of a figure is so wide, and its edge stands over it at both ends, pixels. */
const LETTER = 8;
export const EDGE = 2;
/** The numbers at a band's edges begin so far inside their frame, pixels. */
export const FROM_EDGE = 4;
const ROUNDING = 1e-9;
/** Half of a trace's line. */
const LINE = 1.5;

/** The width of a figure with its edge, pixels. */
export const figureWidth = (text: string): number => text.length * LETTER + 2 * EDGE;

/**
 * The base line nearest to a wanted one at which a figure lies on none of what is in its way.
 *
 * @param blocked what it may not lie on.
 * @param within where it must stay.
 * @returns null where there is no such.
 */
export function clearBaseline(wanted: number, blocked: readonly Reach[], [top, bottom]: Reach): number | null {
  const [first, last] = [top + RISE, bottom - FALL];
  if (first > last) return null;
  // Just over and just under each thing in the way, at the edges, and where it is wanted.
  const lines = [wanted, first, last, ...blocked.flatMap(([a, b]) => [a - FALL, b + RISE])].filter(
    (y) => y >= first && y <= last,
  );
  const clear = lines.filter((y) => blocked.every(([a, b]) => y + FALL <= a + ROUNDING || y - RISE >= b - ROUNDING));
  return clear.reduce<number | null>(
    (best, y) => (best === null || Math.abs(y - wanted) < Math.abs(best - wanted) ? y : best),
    null,
  );
}

/** What a trace covers between two shares 0..1 of its window, pixels. */
export function traceReach({ min, max }: PictureData, from: number, to: number, y: (volts: number) => number): Reach[] {
  const last = min.length - 1;
  const [a, b] = [Math.max(0, Math.floor(from * last)), Math.min(last, Math.ceil(to * last))];
  let [low, high] = [Infinity, -Infinity];
  for (let k = a; k <= b; k++) {
    low = Math.min(low, min[k] as number);
    high = Math.max(high, max[k] as number);
  }
  return low > high ? [] : [[y(high) - LINE, y(low) + LINE]];
}

/** A number at a band's edge. */
export const boundText = (volts: number): string => showNumber(volts, 2, true);

/** From a frame's left edge to where those numbers end, pixels. */
export const boundWidth = (bound: readonly [number, number]): number =>
  FROM_EDGE + Math.max(...bound.map((volts) => figureWidth(boundText(volts))));

/** Base lines of the numbers at a band's edges: over the high one, under the low one. */
export const boundLines = ([low, high]: readonly [number, number], y: (volts: number) => number) => ({
  high: y(high) - 4,
  low: y(low) + 13,
});

/** What those numbers cover. */
export function boundReach(bound: readonly [number, number], y: (volts: number) => number): Reach[] {
  const lines = boundLines(bound, y);
  return [lines.high, lines.low].map((line) => [line - RISE, line + FALL]);
}
