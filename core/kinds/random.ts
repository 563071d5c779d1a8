/** FNV-1a over the text, mixed with the patch's seed: what makes a module's draws its own. */
export function seedOf(patchSeed: number, moduleId: string): number {
  let hash = 2166136261 ^ patchSeed;
  for (let i = 0; i < moduleId.length; i++) hash = Math.imul(hash ^ moduleId.charCodeAt(i), 16777619);
  return hash >>> 0;
}

/** The n-th uniform draw in -1..1, reachable in any order (the mixing of Steele's SplitMix, 32 bits). */
export function draw(seed: number, n: number): number {
  let z = (seed + Math.imul(n + 1, 0x9e3779b9)) | 0;
  z = Math.imul(z ^ (z >>> 16), 0x85ebca6b);
  z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
  z ^= z >>> 16;
  return ((z >>> 0) / 4294967295) * 2 - 1;
}

/** A seeded stream of uniform draws in 0..1. */
export function stream(seed: number): () => number {
  let n = 0;
  return () => (draw(seed, n++) + 1) / 2;
}

/** A standard normal draw (Box and Muller 1958). */
export const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random() * 0.999999)) * Math.cos(2 * Math.PI * random());
