import { faultOf } from './check';
import { builtPatch, randomPatch } from './randomPatch';

/**
 * How many random patches each run looks at, in all files together, which run beside each other. `npm run fuzz` looks at as
 * many as one likes, from any seed on.
 */
const PATCHES = Number(process.env.FENVO_FUZZ ?? 12_000);
const FILES = 4;
const PART = 1000;

/** Where the parts begin that one file takes. */
export function seedsOf(file: 0 | 1 | 2 | 3): number[] {
  return Array.from({ length: Math.ceil(PATCHES / PART) }, (_, i) => i)
    .filter((i) => i % FILES === file)
    .map((i) => i * PART);
}

/**
 * What is wrong with the answers to the random patch of a seed, or null. Of all kinds, some with loops, automation,
 * normals between sockets or bypassed stages; half of them as they would be built, every other module a little off.
 */
export function patchFault(seed: number): string | null {
  const patch = randomPatch(seed, {
    loops: seed % 3 === 0,
    hands: seed % 20 === 0,
    links: seed % 5 === 1,
    bypass: seed % 7 === 0,
    duration: 0.05,
  });
  const isBuilt = Math.floor(seed / 8) % 2 === 1;
  return faultOf(patch, { findings: seed % 4 === 0, ...(isBuilt && { asBuilt: (p) => builtPatch(seed, p) }) });
}

/** The first fault among the patches of a part, with its seed; null where seen lies within bound in all of them. */
export function firstFault(from: number): string | null {
  for (let seed = from; seed < from + PART; seed++) {
    const fault = patchFault(seed);
    if (fault !== null) return `seed ${seed}: ${fault}`;
  }
  return null;
}
