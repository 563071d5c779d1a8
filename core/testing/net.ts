import { Cone } from '../bounds/cone';
import { stream } from '../kinds/random';
import type { AtomStore } from '../law/builder';
import { constant, doubling } from '../law/affine';
import type { Affine, Range } from '../law/affine';

/** A random memoryless net over one to six sources, as a law. */
export function randomNet(store: AtomStore, seed: number): Affine {
  const random = stream(seed);
  const between = (lo: number, hi: number): number => lo + (hi - lo) * random();
  const pool: Affine[] = Array.from({ length: Math.ceil(6 * random()) }, (_, i) =>
    store.leaf(`net ${seed} ${i}`, -between(0, 5), between(1, 6)),
  );
  // Mostly from the newest, so that nets grow deep.
  const any = (): Affine => pool[Math.floor(pool.length * Math.sqrt(random()))] ?? constant(0);
  for (let n = 0; n < 10; n++) {
    const way = random();
    if (way < 0.3) pool.push(store.scale(store.mul(any(), any()), 0.2));
    else if (way < 0.55)
      pool.push(store.sum([any(), between(-1, 1)], [any(), between(-1, 1)], [constant(between(-1, 1)), 1]));
    else if (way < 0.75) pool.push(store.clamp(any(), -between(1, 4), between(1, 4)));
    else if (way < 0.85) pool.push(store.abs(any()));
    else if (way < 0.93) pool.push(store.max(any(), any()));
    else pool.push(store.curve(store.clamp(any(), -4, 2), doubling));
  }
  return pool.at(-1) ?? constant(0);
}

/** What a search over a net's sources finds: random points, corners, then a climb from the best. Inside the true range. */
export function searched(net: Affine, seed: number, points: number): Range {
  const cone = new Cone(net);
  const random = stream(seed);
  const point = new Float64Array(cone.n);
  const extremes = [new Float64Array(cone.n), new Float64Array(cone.n)] as const;
  const inside = (i: number, v: number): number => Math.min(cone.high[i] ?? 0, Math.max(cone.low[i] ?? 0, v));
  const span = (i: number): number => (cone.high[i] ?? 0) - (cone.low[i] ?? 0);
  let [lo, hi] = [Infinity, -Infinity];
  const look = (): void => {
    const v = cone.at(point);
    if (v < lo) extremes[0].set(point);
    if (v > hi) extremes[1].set(point);
    [lo, hi] = [Math.min(lo, v), Math.max(hi, v)];
  };
  for (let n = 0; n < points; n++) {
    const share = n % 2 === 0 ? random : () => Math.round(random());
    for (let i = 0; i < cone.n; i++) point[i] = (cone.low[i] ?? 0) + share() * span(i);
    look();
  }
  for (const start of extremes) {
    let width = 0.6;
    for (let n = 0; n < points / 5; n++) {
      width *= 0.998;
      for (let i = 0; i < cone.n; i++) point[i] = inside(i, (start[i] ?? 0) + (random() - 0.5) * width * span(i));
      look();
    }
  }
  return [lo, hi];
}
