import { scaleLinear } from 'd3-scale';
import type { ScaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import simplify from 'simplify-js';
import type { PictureData } from '@/wire/core';

export const RULER = 48;
export const UNIT_RULER = 92;
/** Where strips are drawn small: a joining path, above. */
export const MINI = { width: 104, height: 50, gap: 22, row: 84 } as const;
/** The same where many join, so that all stay in sight. */
export const TINY = { width: 70, height: 24, gap: 14, row: 43 } as const;
export type Small = typeof MINI | typeof TINY;
/** More rows than this are drawn tiny. */
const MOST_ROWS = 2;
const FRAME = { least: 92, most: 480, folded: 20 } as const;
/** In a folded frame, its name stands in the left part and its bands in the right. */
export const FOLDED_NAME = 12;
const BETWEEN = { open: 30, folded: 12 } as const;
const TOP = 56;
/** The time ruler, then where else an output goes. */
const BOTTOM = 42;
/** Above and below all bands: the numbers at their edges stand there at the most. */
export const NUMBER = 18;

export type Volts = readonly [low: number, high: number];

export interface Layout {
  readonly width: number;
  readonly height: number;
  /** Left edge and width of each frame. */
  readonly x: readonly number[];
  readonly w: readonly number[];
  readonly folded: readonly boolean[];
  /** Between two frames. */
  readonly gap: number;
  readonly top: number;
  readonly bottom: number;
  readonly small: Small;
  readonly y: ScaleLinear<number, number>;
}

export interface Space {
  readonly width: number;
  readonly height: number;
}

const beside = (width: number): number => width - RULER - UNIT_RULER;

/** Whether all frames fit unfolded. */
export const fits = (frames: number, width: number): boolean =>
  frames * FRAME.least + (frames - 1) * BETWEEN.open <= beside(width);

/**
 * Which frames are folded to slivers so that the whole path stays in sight: the farthest from the one in hand first;
 * the destination never.
 */
export function foldsOf(frames: number, inHand: number, width: number): boolean[] {
  const folded = Array.from({ length: frames }, () => false);
  if (fits(frames, width)) return folded;
  const centre = inHand < 0 ? frames - 1 : inHand;
  const order = folded
    .map((_, i) => i)
    .filter((i) => i !== centre && i !== frames - 1)
    .sort((a, b) => Math.abs(b - centre) - Math.abs(a - centre) || a - b);
  const needed = (): number =>
    folded.reduce((sum, f) => sum + (f ? FRAME.folded : FRAME.least), (frames - 1) * BETWEEN.folded);
  for (const i of order) {
    if (needed() <= beside(width)) break;
    folded[i] = true;
  }
  return folded;
}

/** Where the frames and the ruler stand in a given space; wider than it, to be scrolled, where frames would be too thin. */
export function layoutOf(folded: readonly boolean[], space: Space, rows: number, domain: Volts, low = false): Layout {
  const frames = folded.length;
  const gap = folded.includes(true) ? BETWEEN.folded : BETWEEN.open;
  const slivers = folded.filter(Boolean).length;
  const free = beside(space.width) - gap * (frames - 1) - slivers * FRAME.folded;
  const open = Math.min(FRAME.most, Math.max(FRAME.least, free / Math.max(1, frames - slivers)));
  const w = folded.map((f) => (f ? FRAME.folded : open));
  const x: number[] = [];
  w.reduce((at, width) => (x.push(at), at + width + gap), RULER);
  const small = low || rows > MOST_ROWS ? TINY : MINI;
  const top = rows * small.row + TOP;
  const bottom = Math.max(top + 104, space.height - BOTTOM);
  return {
    width: Math.max(space.width, (x.at(-1) ?? RULER) + (w.at(-1) ?? 0) + UNIT_RULER),
    height: bottom + BOTTOM,
    x,
    w,
    folded,
    gap,
    top,
    bottom,
    small,
    y: scaleLinear()
      .domain(domain)
      .range([bottom - NUMBER, top + NUMBER]),
  };
}

/** A trace through its columns, each drawn over all that it holds. */
export function tracePath(
  picture: PictureData,
  x: number,
  width: number,
  y: (volts: number) => number,
): { readonly d: string; readonly filled: boolean } {
  const columns = picture.min.length;
  const step = columns > 1 ? width / (columns - 1) : 0;
  const thin = (i: number): boolean => Math.abs(y(picture.min[i] ?? 0) - y(picture.max[i] ?? 0)) < 12;
  const draw = area<number>()
    .defined((i) => Number.isFinite(picture.min[i]))
    .x((i) => x + i * step)
    .y0((i) => y(picture.min[i] ?? 0))
    .y1((i) => y(picture.max[i] ?? 0))
    .digits(1);
  const list = indices(columns);
  if (list.every(thin)) {
    const inside = (at: number): number => x + Math.min(columns - 1, Math.max(0, at)) * step;
    return { d: throughColumns(picture, inside, y), filled: false };
  }
  return { d: draw(list) ?? '', filled: true };
}

/** What a straight line may leave a trace by, pixels: the fewer points, the less there is to paint. */
const STRAIGHT = 0.15;

/**
 * A line that meets each column's least and greatest value, the nearer first, one at either side of the column: peaks
 * stay where they are, and a ramp is straight.
 */
function throughColumns(picture: PictureData, x: (at: number) => number, y: (volts: number) => number): string {
  const points: { x: number; y: number }[] = [];
  let last = picture.min[0] ?? 0;
  for (let i = 0; i < picture.min.length; i++) {
    const low = picture.min[i] ?? 0;
    const high = picture.max[i] ?? 0;
    if (!Number.isFinite(low)) continue;
    const rising = Math.abs(low - last) <= Math.abs(high - last);
    const first = rising ? low : high;
    last = rising ? high : low;
    if (high > low) points.push({ x: x(i - 0.5), y: y(first) }, { x: x(i + 0.5), y: y(last) });
    else points.push({ x: x(i), y: y(last) });
  }
  return trace(simplify(points, STRAIGHT, true)) ?? '';
}

const trace = line<{ readonly x: number; readonly y: number }>()
  .x((p) => p.x)
  .y((p) => p.y)
  .digits(1);

const lists = new Map<number, readonly number[]>();

function indices(count: number): number[] {
  let list = lists.get(count);
  if (!list) lists.set(count, (list = Array.from({ length: count }, (_, i) => i)));
  return list as number[];
}

/** The shape between two frames that carries one band over into the next; crossed where the stage inverts it. */
export function connectorPath(
  x: number,
  from: Volts,
  to: Volts,
  flipped: boolean,
  y: (volts: number) => number,
  gap: number,
): string {
  const [a, b] = flipped ? [to[1], to[0]] : to;
  const [right, middle] = [x + gap, x + gap / 2];
  const curve = (v0: number, v1: number): string => `C${middle},${y(v0)} ${middle},${y(v1)} ${right},${y(v1)}`;
  const back = (v0: number, v1: number): string => `C${middle},${y(v0)} ${middle},${y(v1)} ${x},${y(v1)}`;
  return `M${x},${y(from[0])}${curve(from[0], a)}L${right},${y(b)}${back(b, from[1])}Z`;
}

/** The parts of a range outside a window. */
export function outside([low, high]: Volts, [from, to]: Volts): Volts[] {
  const parts: Volts[] = [];
  if (low < from - 1e-9) parts.push([low, Math.min(high, from)]);
  if (high > to + 1e-9) parts.push([Math.max(low, to), high]);
  return parts;
}

/** The volts of a picture at a share 0..1 of the window: from least to greatest of that column. */
export function voltsAt(picture: PictureData, share: number): Volts | null {
  const columns = picture.min.length;
  const column = Math.min(columns - 1, Math.max(0, Math.round(share * (columns - 1))));
  const [low, high] = [picture.min[column], picture.max[column]];
  return low === undefined || high === undefined || !Number.isFinite(low) ? null : [low, high];
}

const sameList = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((v, i) => v === b[i]);

/** Whether two rulers put every voltage in the same place. */
export const sameScale = (a: Layout['y'], b: Layout['y']): boolean =>
  a === b || (sameList(a.domain(), b.domain()) && sameList(a.range(), b.range()));

/** Whether two layouts put everything in the same place. */
export const sameLayout = (a: Layout, b: Layout): boolean =>
  a === b ||
  (a.width === b.width &&
    a.height === b.height &&
    a.gap === b.gap &&
    a.small === b.small &&
    a.top === b.top &&
    a.bottom === b.bottom &&
    sameList(a.w, b.w) &&
    sameList(a.x, b.x) &&
    sameScale(a.y, b.y));
