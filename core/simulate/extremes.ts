import type { Range } from '../law/affine';

/** The least and the greatest of a trace. */
export function extremes(trace: Float64Array): Range {
  let [lo, hi] = [Infinity, -Infinity];
  for (const v of trace) {
    if (v < lo) lo = v;
    if (v > hi) hi = v;
  }
  return [lo, hi];
}
