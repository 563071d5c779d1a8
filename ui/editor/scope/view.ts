import { LEVEL_SECONDS, levelDb, levelSteps } from '@/core';
import type { ProbeAnswer } from '@/wire/core';

/** A pinned socket's trace. */
export interface Trace {
  readonly socket: string;
  readonly label: string;
  readonly probe: ProbeAnswer;
}

/** The part of the window that is in view, seconds. */
export interface Window {
  readonly from: number;
  readonly to: number;
}

export interface Columns {
  readonly min: Float32Array;
  readonly max: Float32Array;
}

/** The least and greatest sample of each pixel column, so that nothing between two pixels is lost. */
export function columnsOf(
  trace: ArrayLike<number>,
  sampleRate: number,
  { from, to }: Window,
  columns: number,
): Columns {
  const min = new Float32Array(columns).fill(NaN);
  const max = new Float32Array(columns).fill(NaN);
  const per = ((to - from) * sampleRate) / columns;
  for (let c = 0; c < columns; c++) {
    // One sample over on each side, so that neighbouring columns join.
    const first = Math.max(0, Math.floor(from * sampleRate + c * per));
    const last = Math.min(trace.length - 1, Math.ceil(from * sampleRate + (c + 1) * per));
    let [lo, hi] = [Infinity, -Infinity];
    for (let k = first; k <= last; k++) {
      const v = trace[k] as number;
      if (v < lo) lo = v;
      if (v > hi) hi = v;
    }
    if (lo <= hi) {
      min[c] = lo;
      max[c] = hi;
    }
  }
  return { min, max };
}

export function valueAtTime(trace: ArrayLike<number>, sampleRate: number, seconds: number): number {
  return trace[Math.min(trace.length - 1, Math.max(0, Math.round(seconds * sampleRate)))] ?? 0;
}

/** Zooms by a factor around a moment, inside 0..duration; no closer than a few samples. */
export function zoomed(view: Window, around: number, factor: number, duration: number, sampleRate: number): Window {
  const span = Math.min(duration, Math.max(8 / sampleRate, (view.to - view.from) * factor));
  const share = (around - view.from) / (view.to - view.from);
  return moved({ from: around - share * span, to: around - share * span + span }, 0, duration);
}

/** Moves a view by seconds, stopped at the window's ends. */
export function moved({ from, to }: Window, by: number, duration: number): Window {
  const span = to - from;
  const start = Math.min(Math.max(0, from + by), Math.max(0, duration - span));
  return { from: start, to: start + span };
}

/** Degrees between two moments, by a trace's own period. */
export function phaseApart({ measures }: ProbeAnswer, seconds: number): number | null {
  return measures.period === null ? null : (360 * seconds) / measures.period;
}

export const DASHES = ['', '7 4', '2 3', '9 3 2 3', '12 5', '4 2 1 2', '1 4', '14 3 3 3'] as const;

/** Where a trace crosses a level upwards or downwards, seconds; a gate's edges by their middle. */
export function edgesOf(trace: ArrayLike<number>, sampleRate: number, level: number, rising: boolean): number[] {
  const edges: number[] = [];
  for (let k = 1; k < trace.length; k++) {
    const [a, b] = [trace[k - 1] as number, trace[k] as number];
    if (rising ? a < level && b >= level : a > level && b <= level) edges.push(k / sampleRate);
    if (edges.length >= 10_000) break;
  }
  return edges;
}

/** What a trace is shown in. */
export type ShownIn = 'volts' | 'figure' | 'dB' | 'level';

/** 0 dB of a voltage shown in dB, volts peak. */
const DB_VOLTS = 5;
/** Lower than this is silence. */
const DB_FLOOR = -80;

const decibels = (volts: number): number =>
  Math.max(DB_FLOOR, 20 * Math.log10(Math.max(Math.abs(volts), 1e-9) / DB_VOLTS));

/** A trace as it is drawn: its samples in what is shown, how far they reach, and their unit. */
export interface Shown {
  readonly data: Float32Array;
  readonly unit: string;
  readonly extent: readonly [number, number];
}

/** Null where the trace has no such figure. */
export function shownTrace({ probe }: Trace, shownIn: ShownIn, sampleRate: number): Shown | null {
  const shown = (data: Float32Array, unit: string): Shown => ({ data, unit, extent: extentOf(data) });
  switch (shownIn) {
    case 'volts':
      return { data: probe.trace, unit: 'V', extent: [probe.measures.min, probe.measures.max] };
    case 'dB':
      return shown(probe.trace.map(decibels), 'dB');
    case 'level':
      return shown(levelTrace(probe.trace, sampleRate), 'dBV');
    case 'figure': {
      const { figure } = probe;
      if (!figure) return null;
      const silent = figure.unit.startsWith('dB');
      return shown(silent ? figure.trace.map((v) => Math.max(DB_FLOOR, v)) : figure.trace, figure.unit);
    }
  }
}

/** A trace's level over time: each step's RMS, held for as long as the step. */
function levelTrace(trace: Float32Array, sampleRate: number): Float32Array {
  const steps = levelSteps(trace, sampleRate).map((square) => Math.max(DB_FLOOR, levelDb(square) ?? DB_FLOOR));
  const length = Math.max(1, Math.round(LEVEL_SECONDS * sampleRate));
  return trace.map((_, k) => steps[Math.min(steps.length - 1, Math.floor(k / length))] ?? DB_FLOOR);
}

/** Least and greatest of what is drawn. */
function extentOf(data: ArrayLike<number>): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (let k = 0; k < data.length; k++) {
    const v = data[k] as number;
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return low <= high ? [low, high] : [0, 0];
}

/** How many traces the scope shows at once. */
export const MOST_TRACES = 8;
