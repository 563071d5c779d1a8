import { CholeskyDecomposition, Matrix } from 'ml-matrix';

/** Beyond so many sigmas a reading counts in proportion, not in square (Huber 1964). */
const HUBER = 1.345;

export const weightOf = (r: number): number => (Math.abs(r) <= HUBER ? 1 : HUBER / Math.abs(r));
/** The cost of residuals and of how far unknowns are from their priors, in sigmas. */
export const huberCost = (r: readonly number[], x: readonly number[]): number =>
  r.reduce((sum, v) => sum + (Math.abs(v) <= HUBER ? v * v : HUBER * (2 * Math.abs(v) - HUBER)), 0) +
  x.reduce((sum, v) => sum + v * v, 0);

/** What one unknown does to a reading: sigmas of the reading for a sigma of its prior. */
export type Effect = readonly [unknown: number, by: number];
/** By reading, all that moves it. */
export type Effects = readonly (readonly Effect[])[];

const movedBy = (of: readonly Effect[], x: readonly number[]): number =>
  of.reduce((sum, [i, by]) => sum + by * (x[i] as number), 0);

/** What all readings, weighted, tell of pairs of unknowns. */
export function productsOf(effects: Effects, n: number, weight: (row: number) => number): Matrix {
  const products = Matrix.zeros(n, n);
  effects.forEach((of, row) => {
    const w = weight(row);
    for (const [i, a] of of) for (const [j, b] of of) products.set(i, j, products.get(i, j) + w * (a * b));
  });
  return products;
}

const REWEIGHTED = 12;

/** The fit of the linear model about a point. */
export function linearFit(
  effects: Effects,
  start: readonly number[],
  from: readonly number[],
  damping: number,
): number[] {
  const n = from.length;
  let x = [...from];
  for (let k = 0; k < REWEIGHTED; k++) {
    const step = x.map((v, i) => v - (from[i] as number));
    const r = start.map((v, row) => v - movedBy(effects[row] ?? [], step));
    const a = productsOf(effects, n, (row) => weightOf(r[row] as number));
    const b = Matrix.columnVector(x.map((v) => -v));
    effects.forEach((of, row) => {
      const w = weightOf(r[row] as number) * (r[row] as number);
      for (const [i, by] of of) b.set(i, 0, b.get(i, 0) + w * by);
    });
    for (let i = 0; i < n; i++) a.set(i, i, a.get(i, i) + 1 + damping);
    const by = new CholeskyDecomposition(a).solve(b).to1DArray();
    x = x.map((v, i) => v + (by[i] as number));
    if (Math.max(...by.map(Math.abs)) < 1e-4) break;
  }
  return x;
}
