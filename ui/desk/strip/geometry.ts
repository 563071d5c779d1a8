import { scaleLinear } from 'd3-scale';
import type { ScaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import type { PictureData } from '@/workers/protocol';

export const RULER = 48;
export const UNIT_RULER = 92;
export const GAP = 30;
export const MINI = { width: 104, height: 50, gap: 22, row: 84 } as const;
const FRAME = { least: 92, most: 200 } as const;
const TOP = 56;
const BOTTOM = 22;

export type Volts = readonly [low: number, high: number];

export interface Layout {
  readonly width: number;
  readonly height: number;
  readonly frameWidth: number;
  /** Left edge of each frame. */
  readonly x: readonly number[];
  readonly top: number;
  readonly bottom: number;
  readonly y: ScaleLinear<number, number>;
}

/** Where the frames and the ruler stand in a given space; wider than it, to be scrolled, where frames would be too thin. */
export function layoutOf(
  frames: number,
  space: { width: number; height: number },
  rows: number,
  domain: Volts,
): Layout {
  const free = space.width - RULER - UNIT_RULER - GAP * (frames - 1);
  const frameWidth = Math.min(FRAME.most, Math.max(FRAME.least, free / Math.max(1, frames)));
  const top = rows * MINI.row + TOP;
  const bottom = Math.max(top + 120, space.height - BOTTOM);
  return {
    width: Math.max(space.width, RULER + UNIT_RULER + frames * frameWidth + GAP * (frames - 1)),
    height: bottom + BOTTOM,
    frameWidth,
    x: Array.from({ length: frames }, (_, i) => RULER + i * (frameWidth + GAP)),
    top,
    bottom,
    y: scaleLinear().domain(domain).range([bottom, top]),
  };
}

/** The ruler's span: all that the frames can reach, with room for the numbers at their edges. */
export function domainOf(ranges: readonly Volts[]): Volts {
  const low = Math.min(-0.5, ...ranges.map((r) => r[0]));
  const high = Math.max(0.5, ...ranges.map((r) => r[1]));
  const room = (high - low) * 0.07;
  return [low - room, high + room];
}

export interface Block {
  readonly right: number;
  readonly frames: number;
}

/** Rows for the smaller strips above, so that none covers another; and how many frames of each fit. */
export function stackRows(blocks: readonly Block[], left: number): { row: number; shown: number }[] {
  const ends: number[] = [];
  const span = MINI.width + MINI.gap;
  return blocks.map(({ right, frames }) => {
    const shown = Math.max(1, Math.min(frames, Math.floor((right - left) / span)));
    const from = right - shown * span;
    let row = ends.findIndex((end) => end <= from);
    if (row < 0) row = ends.length;
    ends[row] = right + MINI.gap;
    return { row, shown };
  });
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
  if (list.every(thin)) return { d: throughColumns(picture, (i) => x + i * step, y), filled: false };
  return { d: draw(list) ?? '', filled: true };
}

/** A line that meets each column's least and greatest value, the nearer first: peaks stay where they are. */
function throughColumns(picture: PictureData, x: (i: number) => number, y: (volts: number) => number): string {
  const points: [number, number][] = [];
  let last = picture.min[0] ?? 0;
  for (let i = 0; i < picture.min.length; i++) {
    const low = picture.min[i] ?? 0;
    const high = picture.max[i] ?? 0;
    if (!Number.isFinite(low)) continue;
    const rising = Math.abs(low - last) <= Math.abs(high - last);
    points.push([x(i), y(rising ? low : high)]);
    last = rising ? high : low;
    if (high > low) points.push([x(i), y(last)]);
  }
  return line().digits(1)(points) ?? '';
}

const lists = new Map<number, readonly number[]>();

function indices(count: number): number[] {
  let list = lists.get(count);
  if (!list) lists.set(count, (list = Array.from({ length: count }, (_, i) => i)));
  return list as number[];
}

export function extremes(picture: PictureData | undefined): Volts | null {
  if (!picture) return null;
  let [low, high] = [Infinity, -Infinity];
  for (const v of picture.min) if (v < low) low = v;
  for (const v of picture.max) if (v > high) high = v;
  return low <= high ? [low, high] : null;
}

/** The shape between two frames that carries one band over into the next; crossed where the stage flips it. */
export function connectorPath(
  x: number,
  from: Volts,
  to: Volts,
  flipped: boolean,
  y: (volts: number) => number,
): string {
  const [a, b] = flipped ? [to[1], to[0]] : to;
  const [right, middle] = [x + GAP, x + GAP / 2];
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
