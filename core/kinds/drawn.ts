/** Where a search in a list of points last ended, a hint for the next. */
export interface Near {
  index: number;
}

/**
 * What a hand's move is at time `t`, seconds: between its points linear or held; before the first and after the last
 * point their value.
 */
export function drawnAt<T extends { readonly t: number }>(
  list: readonly T[],
  of: (point: T) => number,
  t: number,
  hold: boolean,
  near: Near,
): number {
  const at = (i: number): T => list[i] as T;
  const last = list.length - 1;
  if (t < at(0).t) return of(at(0));
  if (t >= at(last).t) return of(at(last));
  let i = near.index <= last && at(near.index).t <= t ? near.index : 0;
  while (at(i + 1).t <= t) i++;
  near.index = i;
  if (hold) return of(at(i));
  const [a, b] = [at(i), at(i + 1)];
  return of(a) + ((of(b) - of(a)) * (t - a.t)) / (b.t - a.t);
}

/** Time within a loop, seconds; a time within a nanosecond of the end is the start. */
export function looped(t: number, period: number): number {
  const rest = t - Math.floor(t / period + 1e-12) * period;
  return Math.max(0, rest);
}
