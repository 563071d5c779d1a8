import { levelOf, levelSteps } from '@/core';
import type { Measures } from '@/core';

type OverTime = NonNullable<ReturnType<typeof levelOf>>;
import type { Trace } from './view';

/** What a meter at the rack would show of a trace. */
export interface Level extends Pick<Measures, 'mean' | 'rms' | 'min' | 'max'> {
  readonly socket: string;
  readonly label: string;
  /** From where to where it reaches, inside the meter's range, volts. */
  readonly reach: readonly [number, number];
  /** How much of the time it is beyond the range, percent. */
  readonly overPercent: number;
  /** Its RMS in steps of 50 ms: its highest and lowest, dB relative to 1 V; null of a trace shorter than that. */
  readonly overTime: OverTime | null;
}

/** Each trace's reach within ±`range` volts. */
export function levelsOf(traces: readonly Trace[], range: number, sampleRate: number): Level[] {
  const inside = (v: number): number => Math.min(range, Math.max(-range, v));
  return traces.map(({ socket, label, probe: { measures, trace } }) => {
    const over = trace.reduce((count, v) => count + (Math.abs(v) > range ? 1 : 0), 0);
    const { mean, rms, min, max } = measures;
    const reach = [inside(min), inside(max)] as const;
    const overTime = levelOf(levelSteps(trace, sampleRate));
    return {
      socket,
      label,
      overTime,
      mean,
      rms,
      min,
      max,
      reach,
      overPercent: (100 * over) / Math.max(1, trace.length),
    };
  });
}
