export interface Measures {
  readonly min: number;
  readonly max: number;
  readonly peakToPeak: number;
  readonly mean: number;
  readonly rms: number;
  /** Share of the time above the middle, 0..1. */
  readonly duty: number;
  /** Seconds from one rise through the middle to the next; null if it rises less than twice, or not evenly. */
  readonly period: number | null;
  readonly frequency: number | null;
}

/** A rise counts once the voltage was this share of the swing below the middle: noise on an edge is one edge. */
const SHARE = 0.02;

/**
 * Measures of a trace in volts, as a meter and a scope would give them.
 *
 * @param repeats whether it repeats at all; what does not has no period, however often it crosses its middle.
 */
export function measure(trace: ArrayLike<number>, sampleRate: number, repeats = true): Measures {
  let [min, max, sum, squares] = [Infinity, -Infinity, 0, 0];
  for (let i = 0; i < trace.length; i++) {
    const v = trace[i] as number;
    if (v < min) min = v;
    if (v > max) max = v;
    sum += v;
    squares += v * v;
  }
  const n = trace.length;
  const middle = (min + max) / 2;
  let above = 0;
  for (let i = 0; i < n; i++) if ((trace[i] as number) > middle) above++;
  const period = !repeats ? null : periodOf(trace, middle, (max - min) * SHARE, sampleRate);
  return {
    min,
    max,
    peakToPeak: max - min,
    mean: sum / n,
    rms: Math.sqrt(squares / n),
    duty: above / n,
    period,
    frequency: period === null ? null : 1 / period,
  };
}

/** Times between crossings that differ by less than this are of one period. */
const EVEN = 0.01;
/** The share of them that must agree: a tone that is gated off now and then is still that tone. */
const MOST_ALIKE = 0.6;

/** By the rises through the middle, or by the falls where a short window holds more of those. */
function periodOf(trace: ArrayLike<number>, middle: number, margin: number, sampleRate: number): number | null {
  const rises = crossings(trace, middle, margin, 1);
  const falls = crossings(trace, middle, margin, -1);
  const times = falls.length > rises.length ? falls : rises;
  if (times.length < 2) return null;
  const between = times.slice(1).map((t, i) => t - (times[i] as number));
  const median = [...between].sort((x, y) => x - y)[between.length >> 1] as number;
  const alike = between.filter((t) => Math.abs(t - median) <= EVEN * median);
  // What comes and goes is missed in its quiet moments; what is never twice the same has no period.
  if (between.length > 2 && alike.length < MOST_ALIKE * between.length) return null;
  const used = between.length > 2 ? alike : between;
  return used.reduce((sum, t) => sum + t, 0) / used.length / sampleRate;
}

/** Crossings in samples, with fractions; `way` 1 upward, -1 downward. */
function crossings(trace: ArrayLike<number>, middle: number, margin: number, way: 1 | -1): number[] {
  const found: number[] = [];
  let armed = false;
  for (let i = 1; i < trace.length; i++) {
    const a = way * ((trace[i - 1] as number) - middle);
    const b = way * ((trace[i] as number) - middle);
    if (a < -margin) armed = true;
    if (!armed || a >= 0 || b < 0) continue;
    armed = false;
    found.push(i - 1 + a / (a - b));
  }
  return found;
}
