import { faultOf } from './check';
import { randomPatch } from './randomPatch';

/** How many random patches each run looks at, in all files together: files run beside each other. */
const PATCHES = Number(process.env.FENVO_FUZZ ?? 20_000);
const FILES = 4;
const PART = 1000;

/** Where the parts begin that one file takes. */
export function seedsOf(file: 0 | 1 | 2 | 3): number[] {
  return Array.from({ length: Math.ceil(PATCHES / PART) }, (_, i) => i * PART).filter(
    (from) => (from / PART) % FILES === file,
  );
}

/** The first fault among the patches of a part, with its seed; null where seen lies within bound in all of them. */
export function firstFault(from: number): string | null {
  for (let seed = from; seed < from + PART; seed++) {
    const patch = randomPatch(seed, { loops: seed % 3 === 0, hands: seed % 40 === 0, duration: 0.05 });
    const fault = faultOf(patch, { findings: seed % 4 === 0 });
    if (fault !== null) return `seed ${seed}: ${fault}`;
  }
  return null;
}
