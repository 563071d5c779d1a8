import { gainOf } from '../units/ratios';
import { REACH, TruePeak } from './truePeak';

/** Samples over which the gain is reached. */
const WINDOW = 64;
/** Samples that the limiter looks ahead, which is also its delay: what lies between samples is known late. */
export const LOOK_AHEAD = WINDOW + REACH;
/** It aims below its ceiling by so much: a gain that moves bends the curve between samples, dB. */
export const HEADROOM_DB = 0.6;
/** How long it takes to let go by 63%, seconds. */
const RELEASE = 0.08;

/**
 * Holds two channels below a ceiling, between samples too, whatever comes: the gain that each sample needs is looked
 * for ahead, held, and reached in a straight line, so that nothing is cut flat and nothing gets through.
 */
export class Limiter {
  private readonly left = new Float64Array(LOOK_AHEAD);
  private readonly right = new Float64Array(LOOK_AHEAD);
  private readonly needed = new Float64Array(WINDOW).fill(1);
  private readonly held = new Float64Array(WINDOW).fill(1);
  private readonly leftPeak: TruePeak;
  private readonly rightPeak: TruePeak;
  private tightest = 1;
  private sum = WINDOW;
  private gain = 1;
  private at = 0;
  private late = 0;
  private readonly share: number;
  private readonly aim: number;
  /** The least gain since it was last asked for. */
  private least = 1;

  /** @param ceiling the greatest true peak that comes out, of full scale. */
  constructor(
    sampleRate: number,
    private readonly ceiling: number,
  ) {
    this.share = -Math.expm1(-1 / (RELEASE * sampleRate));
    this.aim = ceiling * gainOf(-HEADROOM_DB);
    this.leftPeak = new TruePeak(this.aim);
    this.rightPeak = new TruePeak(this.aim);
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
      const peak = Math.max(this.leftPeak.next(l), this.rightPeak.next(r));
      const { at, late } = this;
      const lateLeft = this.left[late] as number;
      const lateRight = this.right[late] as number;
      this.left[late] = l;
      this.right[late] = r;
      this.late = late + 1 === LOOK_AHEAD ? 0 : late + 1;
      const needed = this.leastNeeded(peak > this.aim ? this.aim / peak : 1);
      this.gain = Math.min(needed, this.gain + (1 - this.gain) * this.share);
      this.sum += this.gain - (this.held[at] as number);
      this.held[at] = this.gain;
      this.at = at + 1 === WINDOW ? 0 : at + 1;
      if (this.at === 0) this.sum = this.held.reduce((a, b) => a + b, 0);
      const gain = Math.min(1, this.sum / WINDOW);
      this.least = Math.min(this.least, gain);
      left[i] = this.within(lateLeft * gain);
      right[i] = this.within(lateRight * gain);
    }
  }

  /** A sample above its ceiling is left by roundings alone. */
  private within(x: number): number {
    return Math.min(this.ceiling, Math.max(-this.ceiling, x));
  }

  /** Takes in what the newest sample needs; the least of the window. */
  private leastNeeded(newest: number): number {
    const { needed, at } = this;
    const leaves = needed[at] as number;
    needed[at] = newest;
    if (newest <= this.tightest) this.tightest = newest;
    // All are looked through only where the least of them leaves.
    else if (leaves === this.tightest && leaves < 1) {
      let least = 1;
      for (let i = 0; i < WINDOW; i++) least = Math.min(least, needed[i] as number);
      this.tightest = least;
    }
    return this.tightest;
  }
}
