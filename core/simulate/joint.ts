/** Where one trace crosses a value, and what the other is then. */
export interface Crossing {
  /** Seconds. */
  readonly at: number;
  readonly rising: boolean;
  /** Volts. */
  readonly other: number;
}

/** Crossings that are told, at most. */
const MOST = 1000;

/**
 * What one voltage is when another is at a value: every crossing of it, between samples along straight lines, and the
 * samples at which it comes to rest there.
 *
 * @param a the trace that is looked at for the value. @param b the other, of as many samples. @param value volts.
 */
export function crossingsOf(
  a: ArrayLike<number>,
  b: ArrayLike<number>,
  value: number,
  sampleRate: number,
): readonly Crossing[] {
  const found: Crossing[] = [];
  for (let k = 1; k < Math.min(a.length, b.length) && found.length < MOST; k++) {
    const [before, now] = [(a[k - 1] as number) - value, (a[k] as number) - value];
    const touches = now === 0 && before !== 0;
    if (!touches && !(before * now < 0)) continue;
    const share = before / (before - now);
    const [from, to] = [b[k - 1] as number, b[k] as number];
    found.push({ at: (k - 1 + share) / sampleRate, rising: now > before, other: from + share * (to - from) });
  }
  return found;
}

/** Where one trace is looked at: at a figure, in the middle of what it reaches, or at an end. */
export type JointAt = number | 'lowest' | 'middle' | 'highest';

/** What one voltage is when another is at a figure, or at the middle or an end of its reach: at every crossing. */
export function jointAt(
  a: ArrayLike<number>,
  b: ArrayLike<number>,
  at: JointAt,
  sampleRate: number,
): readonly Crossing[] {
  let [low, high] = [0, 0];
  for (let k = 0; k < a.length; k++) {
    if ((a[k] as number) < (a[low] as number)) low = k;
    if ((a[k] as number) > (a[high] as number)) high = k;
  }
  if (at === 'middle') return crossingsOf(a, b, ((a[low] as number) + (a[high] as number)) / 2, sampleRate);
  if (typeof at === 'number') return crossingsOf(a, b, at, sampleRate);
  const k = at === 'lowest' ? low : high;
  return a.length > 0 ? [{ at: k / sampleRate, rising: at === 'highest', other: b[k] as number }] : [];
}
