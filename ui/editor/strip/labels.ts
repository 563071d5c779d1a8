import { showNumber } from '@/core';
import type { PictureData } from '@/wire/core';
import type { Layout } from './geometry';

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

/** Two figures of a ruler stand at least so far from each other, pixels. */
const LINE_HEIGHT = 15;

/** The most figures of a ruler, up to a limit, that stand clear of each other. */
export function roomyTicks(y: Layout['y'], most: number): number[] {
  for (let n = most; n > 1; n--) {
    const ticks = y.ticks(n);
    const [first, second] = ticks;
    if (first === undefined || second === undefined || Math.abs(y(first) - y(second)) >= LINE_HEIGHT) return ticks;
  }
  return y.ticks(1);
}

/** The width of a figure with its edge, pixels. */
export const figureWidth = (text: string): number => text.length * LETTER + 2 * EDGE;

/**
 * The line nearest to a wanted one at which what reaches so far over and under it lies on none of what is in its way.
 *
 * @param blocked what it may not lie on.
 * @param within where it must stay.
 * @returns null where there is no such.
 */
function clearLine(
  wanted: number,
  blocked: readonly Reach[],
  [top, bottom]: Reach,
  [over, under]: readonly [over: number, under: number],
): number | null {
  const [first, last] = [top + over, bottom - under];
  if (first > last) return null;
  // Just over and just under each thing in the way, at the edges, and where it is wanted.
  const lines = [wanted, first, last, ...blocked.flatMap(([a, b]) => [a - under, b + over])].filter(
    (y) => y >= first && y <= last,
  );
  const clear = lines.filter((y) => blocked.every(([a, b]) => y + under <= a + ROUNDING || y - over >= b - ROUNDING));
  return clear.reduce<number | null>(
    (best, y) => (best === null || Math.abs(y - wanted) < Math.abs(best - wanted) ? y : best),
    null,
  );
}

/** The same for the base line of a figure. */
export const clearBaseline = (wanted: number, blocked: readonly Reach[], within: Reach): number | null =>
  clearLine(wanted, blocked, within, [RISE, FALL]);

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

/** The button that puts a stage between two frames, pixels; and how far over the frames' foot it stands. */
export const INSERT = 24;
const INSERT_FOOT = 6;
/** What it takes of the frames' foot, with a little air. */
export const INSERT_ROOM = INSERT_FOOT + INSERT + 4;

/** The top of that button before a frame: at the frames' foot, but on no number where it reaches into the frame. */
export function insertTop(bound: readonly [number, number], { gap, top, bottom, y }: Layout, folded: boolean): number {
  const foot = bottom - INSERT_FOOT - INSERT;
  if (folded || (INSERT - gap) / 2 <= FROM_EDGE - EDGE) return foot;
  return clearLine(foot, boundReach(bound, y), [top, bottom - 1], [0, INSERT]) ?? foot;
}
