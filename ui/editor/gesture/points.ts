import type { GesturePoint } from '@/core';

/** A hand's move as points in time, for drawing and recording. */

/** Two points closer than this are one moment, seconds. */
const APART = 1e-4;

const rounded = (p: GesturePoint): GesturePoint => ({
  t: Math.round(p.t * 1e4) / 1e4,
  volts: Math.round(p.volts * 1e4) / 1e4,
});

/** Points in order of time, each moment once: the later of two wins. */
export function ordered(points: readonly GesturePoint[]): GesturePoint[] {
  const sorted = points.map(rounded).sort((a, b) => a.t - b.t);
  return sorted.filter((p, i) => i === sorted.length - 1 || (sorted[i + 1] as GesturePoint).t - p.t > APART / 2);
}

/**
 * Leaves out what a straight line says as well (Douglas and Peucker, 1973).
 *
 * @param within how far the line may be off, in what `measure` makes of its values; left out: volts.
 */
export function simplified(
  points: readonly GesturePoint[],
  within: number,
  measure = (volts: number): number => volts,
): GesturePoint[] {
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || points.length < 3) return [...points];
  const kept = new Set([0, points.length - 1]);
  const spans: [number, number][] = [[0, points.length - 1]];
  for (let span = spans.pop(); span; span = spans.pop()) {
    const [from, to] = span;
    const [a, b] = [points[from] as GesturePoint, points[to] as GesturePoint];
    let [worst, far] = [-1, within];
    for (let i = from + 1; i < to; i++) {
      const p = points[i] as GesturePoint;
      const line = b.t === a.t ? a.volts : a.volts + ((b.volts - a.volts) * (p.t - a.t)) / (b.t - a.t);
      const off = Math.abs(measure(p.volts) - measure(line));
      if (off > far) [worst, far] = [i, off];
    }
    if (worst < 0) continue;
    kept.add(worst);
    spans.push([from, worst], [worst, to]);
  }
  return points.filter((_, i) => kept.has(i));
}

/** Puts what was drawn in the place of what was there in that time. */
export function drawnOver(points: readonly GesturePoint[], drawn: readonly GesturePoint[]): GesturePoint[] {
  const times = drawn.map((p) => p.t);
  const [from, to] = [Math.min(...times), Math.max(...times)];
  return ordered([...points.filter((p) => p.t < from - APART || p.t > to + APART), ...drawn]);
}

/** Moves one point, at most up to its neighbours in time. */
export function movedPoint(points: readonly GesturePoint[], index: number, to: GesturePoint): GesturePoint[] {
  const [before, after] = [points[index - 1], points[index + 1]];
  const t = Math.min(after ? after.t - APART : Infinity, Math.max(before ? before.t + APART : 0, to.t));
  return points.map((p, i) => (i === index ? rounded({ t, volts: to.volts }) : p));
}

/** Puts a point on the line halfway to the next one; behind the last one, halfway to the end of the time. */
export function withPointAfter(points: readonly GesturePoint[], index: number, longest: number): GesturePoint[] {
  const from = points[index];
  if (!from) return [...points];
  const to = points[index + 1] ?? { t: longest, volts: from.volts };
  if (to.t - from.t < 2 * APART) return [...points];
  return ordered([...points, { t: (from.t + to.t) / 2, volts: (from.volts + to.volts) / 2 }]);
}

/** Takes one point away; the last stays. */
export const withoutPoint = (points: readonly GesturePoint[], index: number): readonly GesturePoint[] =>
  points.length > 1 ? points.filter((_, i) => i !== index) : points;
