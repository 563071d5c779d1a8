import { spectrumOf } from '../simulate/spectrum';
import type { Seen } from './seen';

/** What stands this far below the loudest is not heard as a tone of its own, dB. */
const HEARD_DB = -40;
/** Two tones are one where they are nearer, as a share. */
const ONE = 0.01;

/** The frequencies that a sound is made of, from low to high, Hz. */
export const tonesAt = (seen: Seen, at: string): number[] =>
  spectrumOf(seen.trace(at), seen.simulation.sampleRate)
    .peaks.filter((p) => p.db > HEARD_DB && p.hz > 15)
    .map((p) => p.hz)
    .toSorted((a, b) => a - b);

/** Whether two lists are of the same tones. */
export const sameTones = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((hz, i) => Math.abs(hz / (b[i] as number) - 1) < ONE);
