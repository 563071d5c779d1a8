import type { Travel } from '../../units/knob';
import type { Problem } from '../problem/problem';

/** A knob that goes to both sides of nothing. */
export const isTwoSided = ({ min, max, taper }: Travel): boolean => taper === 'linear' && min < 0 && max > 0;

/** From where the knobs stand, then inverted, then off a dead middle. */
export function startsFor(problem: Problem, subset: readonly number[]): Float64Array[] {
  const { start, knobs } = problem.trials;
  const moved = (change: (i: number) => number): Float64Array => {
    const x = Float64Array.from(start);
    for (const i of subset) x[i] = change(i);
    return x;
  };
  const at = (i: number): number => start[i] as number;
  const twoSided = (i: number): boolean => isTwoSided(knobs[i]?.travel as Travel);
  const off = (i: number, side: number): number =>
    twoSided(i) && Math.abs(at(i) - 0.5) < 0.02 ? 0.5 + 0.25 * side : at(i);
  const starts = [
    moved((i) => off(i, 1)),
    moved((i) => off(i, -1)),
    moved((i) => (twoSided(i) ? 1 - off(i, 1) : at(i))),
  ];
  // Running the patch takes its time: from fewer places.
  const others = problem.traced ? [0.25, 0.75] : [0.05, 0.3, 0.5, 0.7, 0.95];
  if (subset.length === 1) starts.push(...others.map((p) => moved(() => p)));
  else {
    // One inverted at a time, the others to either side: which of them must invert is not known.
    for (const one of subset.filter(twoSided))
      for (const side of [1, -1]) starts.push(moved((i) => (i === one ? 1 - off(i, 1) : off(i, side))));
    if (!problem.exact)
      starts.push(
        moved(() => 0.5),
        moved((i) => 0.25 + 0.5 * (at(i) > 0.5 ? 0 : 1)),
      );
  }
  const seen = new Set<string>();
  return starts.filter((x) => !seen.has(x.join()) && seen.add(x.join()));
}
