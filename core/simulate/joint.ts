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
