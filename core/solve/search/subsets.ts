import type { Travel } from '../../units/knob';

/** A knob that goes to both sides of nothing. */
export const isTwoSided = ({ min, max, taper }: Travel): boolean => taper === 'linear' && min < 0 && max > 0;

/** All choices of so many of `n`, in order; at most 5000. */
export function combinations(n: number, size: number): number[][] {
  if (size === 0) return [[]];
  const all: number[][] = [];
  const grow = (from: number, taken: number[]): void => {
    if (taken.length === size) return void all.push(taken);
    for (let i = from; i < n && all.length < 5000; i++) grow(i + 1, [...taken, i]);
  };
  grow(0, []);
  return all;
}
