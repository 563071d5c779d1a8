import type { Measures } from '@/core';
import type { Trace } from './view';

/** What a meter at the rack would show of a trace. */
export interface Level extends Pick<Measures, 'mean' | 'rms' | 'min' | 'max'> {
  readonly socket: string;
  readonly label: string;
  /** From where to where it reaches, inside the meter's range, volts. */
  readonly reach: readonly [number, number];
  /** How much of the time it is beyond the range, percent. */
  readonly overPercent: number;
}

/** Each trace's reach within ±`range` volts. */
export function levelsOf(traces: readonly Trace[], range: number): Level[] {
  const inside = (v: number): number => Math.min(range, Math.max(-range, v));
  return traces.map(({ socket, label, probe: { measures, trace } }) => {
    const over = trace.reduce((count, v) => count + (Math.abs(v) > range ? 1 : 0), 0);
    const { mean, rms, min, max } = measures;
    const reach = [inside(min), inside(max)] as const;
    return { socket, label, mean, rms, min, max, reach, overPercent: (100 * over) / Math.max(1, trace.length) };
  });
}
