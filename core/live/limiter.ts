/** Samples that the limiter looks ahead, which is also its delay. */
export const LOOK_AHEAD = 64;
/** How long it takes to let go by 63%, seconds. */
const RELEASE = 0.08;

/**
 * Holds two channels below a ceiling, whatever comes: the gain that each sample needs is looked for ahead, held, and
 * reached in a straight line, so that nothing is cut flat and nothing gets through.
 */
export class Limiter {
  private readonly left = new Float64Array(LOOK_AHEAD);
  private readonly right = new Float64Array(LOOK_AHEAD);
  private readonly needed = new Float64Array(LOOK_AHEAD).fill(1);
  private readonly held = new Float64Array(LOOK_AHEAD).fill(1);
  private sum = LOOK_AHEAD;
  private gain = 1;
  private at = 0;
  private readonly share: number;
  /** The least gain since it was last asked for. */
  private least = 1;

  /** @param ceiling the greatest sample that comes out, of full scale. */
  constructor(
    sampleRate: number,
    private readonly ceiling: number,
  ) {
    this.share = -Math.expm1(-1 / (RELEASE * sampleRate));
  }

  /** By how much it held back since it was last asked, dB; 0 where it did not. */
  reduction(): number {
    const db = -20 * Math.log10(this.least);
    this.least = 1;
    return db;
  }

  process(left: Float32Array, right: Float32Array, count: number): void {
    for (let i = 0; i < count; i++) {
      const [l, r] = [left[i] as number, right[i] as number];
      const peak = Math.max(Math.abs(l), Math.abs(r));
      const { at } = this;
      const lateLeft = this.left[at] as number;
      const lateRight = this.right[at] as number;
      this.left[at] = l;
      this.right[at] = r;
      this.needed[at] = peak > this.ceiling ? this.ceiling / peak : 1;
      const needed = this.leastNeeded();
      this.gain = Math.min(needed, this.gain + (1 - this.gain) * this.share);
      this.sum += this.gain - (this.held[at] as number);
      this.held[at] = this.gain;
      this.at = at + 1 === LOOK_AHEAD ? 0 : at + 1;
      if (this.at === 0) this.sum = this.held.reduce((a, b) => a + b, 0);
      const gain = Math.min(1, this.sum / LOOK_AHEAD);
      this.least = Math.min(this.least, gain);
      left[i] = this.within(lateLeft * gain);
      right[i] = this.within(lateRight * gain);
    }
  }

  /** Only roundings are left for this. */
  private within(x: number): number {
    return Math.min(this.ceiling, Math.max(-this.ceiling, x));
  }

  private leastNeeded(): number {
    let least = 1;
    for (let i = 0; i < LOOK_AHEAD; i++) least = Math.min(least, this.needed[i] as number);
    return least;
  }
}
