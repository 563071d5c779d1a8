import type { Bins, ToleranceReport } from '@/core';

/** Bars of a histogram, each at the middle of its part. */
export const histogram = ({ from, to, counts }: Bins): { readonly at: number; readonly count: number }[] =>
  counts.map((count, i) => ({ at: from + ((i + 0.5) / counts.length) * (to - from), count }));

export interface ShownShare {
  readonly knob: string;
  /** Of both ends' spread, 0..1. */
  readonly share: number;
  /** The greater of what a degree makes of the two ends. */
  readonly perDegree: number;
  readonly unit: string;
}

/** The most knobs that are listed. */
const MOST = 6;
/** What makes less than this is left out. */
const LEAST = 0.005;

/** The knobs that make an end's spread, the greatest share first. */
export function sharesShown({ shares }: Pick<ToleranceReport, 'shares'>, at: string): ShownShare[] {
  return shares
    .filter((s) => s.at === at)
    .map(({ knob, low, high, perDegree: [a, b], unit }) => ({
      knob,
      share: (low + high) / 2,
      perDegree: Math.abs(a) > Math.abs(b) ? a : b,
      unit,
    }))
    .filter((s) => s.share >= LEAST)
    .sort((a, b) => b.share - a.share)
    .slice(0, MOST);
}
