/** A tick: so high, so long, so loud; the first of four is higher. */
const HZ = 1000;
const FIRST_HZ = 1500;
const LASTS = 0.03;
const LOUD = 1;
/** How long it takes to come up, seconds. */
const RISE = 0.001;

/** Short sines on the beat: a count-in, heard and not part of the patch. */
export class Ticks {
  private at: readonly number[] = [];

  constructor(private readonly sampleRate: number) {}

  /** Ticks that begin at these samples, in the place of those that are still to come. */
  count(at: readonly number[]): void {
    this.at = at;
  }

  /** Adds what is due to both ears, volts. @param k the first sample's number. */
  add(k: number, left: Float64Array, right: Float64Array, begin: number, count: number): void {
    if (this.at.length === 0) return;
    const length = Math.round(LASTS * this.sampleRate);
    this.at.forEach((start, n) => {
      const hz = n % 4 === 0 ? FIRST_HZ : HZ;
      for (let i = Math.max(0, start - k); i < Math.min(count, start + length - k); i++) {
        const t = (k + i - start) / this.sampleRate;
        const v = LOUD * Math.min(1, t / RISE) * (1 - t / LASTS) ** 2 * Math.sin(2 * Math.PI * hz * t);
        left[begin + i] = (left[begin + i] as number) + v;
        right[begin + i] = (right[begin + i] as number) + v;
      }
    });
    if (this.at.every((start) => start + length <= k + count)) this.at = [];
  }
}
