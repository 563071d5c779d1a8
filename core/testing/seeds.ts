import { describe, expect, it } from 'vitest';
import { faultOf } from './check';
import { randomPatch } from './randomPatch';

/** How many random patches each run looks at, in all files together. */
const PATCHES = Number(process.env.FENVO_FUZZ ?? 20_000);
const FILES = 4;
const PART = 1000;

/** The share of the seeds that one file takes: files run beside each other. */
export function lookAtSeeds(file: 0 | 1 | 2 | 3): void {
  const parts = Array.from({ length: Math.ceil(PATCHES / PART) }, (_, i) => i).filter((i) => i % FILES === file);
  describe('random patches: seen within bound, all finite, printed and parsed the same', () => {
    it.each(parts.map((i) => i * PART))('seeds from %i', (from) => {
      for (let seed = from; seed < from + PART; seed++) {
        const fault = faultOf(randomPatch(seed, { loops: seed % 3 === 0, duration: 0.05 }));
        expect(fault === null ? null : `seed ${seed}: ${fault}`).toBeNull();
      }
    });
  });
}
