import { dbOf } from '../units/ratios';
import type { Observer } from './types';

/** A level is told of steps this long, seconds. */
export const LEVEL_SECONDS = 0.05;

/** The level of a sound over some steps, dB relative to 1 V RMS; silence is null. */
export interface Level {
  readonly highestDb: number | null;
  readonly lowestDb: number | null;
  /** Between the two; null where one of them is silence. */
  readonly dipDb: number | null;
}

/** Gathers the mean square of each step. */
export class LevelWatch implements Observer {
  readonly sockets: readonly string[];
  /** Mean squares, volts². */
  readonly steps: number[] = [];
  private readonly length: number;
  private sum = 0;
  private count = 0;

  constructor(
    readonly socket: string,
    sampleRate: number,
  ) {
    this.sockets = [socket];
    this.length = Math.max(1, Math.round(LEVEL_SECONDS * sampleRate));
  }

  block([x]: readonly Float64Array[], count: number): void {
    for (let i = 0; i < count; i++) {
      const v = (x as Float64Array)[i] as number;
      this.sum += v * v;
      if (++this.count < this.length) continue;
      this.steps.push(this.sum / this.length);
      this.sum = 0;
      this.count = 0;
    }
  }
}

/** A mean square as a level, dB relative to 1 V RMS; below −200 dB it is silence. */
export const levelDb = (meanSquare: number): number | null => (meanSquare < 1e-20 ? null : dbOf(Math.sqrt(meanSquare)));

/** The level of some steps, mean squares; null of none. */
export function levelOf(steps: readonly number[]): Level | null {
  if (steps.length === 0) return null;
  const highestDb = levelDb(steps.reduce((a, b) => Math.max(a, b), 0));
  const lowestDb = levelDb(steps.reduce((a, b) => Math.min(a, b), Infinity));
  return { highestDb, lowestDb, dipDb: highestDb === null || lowestDb === null ? null : highestDb - lowestDb };
}

/**
 * The level of a trace over time.
 *
 * @param trace volts. @returns mean squares, one for each whole step.
 */
export function levelSteps(trace: ArrayLike<number>, sampleRate: number): number[] {
  const length = Math.max(1, Math.round(LEVEL_SECONDS * sampleRate));
  return Array.from({ length: Math.floor(trace.length / length) }, (_, n) => {
    let sum = 0;
    for (let k = n * length; k < (n + 1) * length; k++) sum += (trace[k] as number) ** 2;
    return sum / length;
  });
}

/** What one sound must be raised by to be as loud at its loudest as another, dB; null where one of them is silence. */
export const makeUpDb = (quiet: Level, loud: Level): number | null =>
  quiet.highestDb === null || loud.highestDb === null ? null : loud.highestDb - quiet.highestDb;
