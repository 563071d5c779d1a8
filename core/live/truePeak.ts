/**
 * What a signal reaches between its samples once it is a voltage again: band-limited interpolation by windowed sincs
 * (four places a sample, as ITU-R BS.1770, annex 2, has it).
 */

/** Samples on either side that the curve between two is worked out from; also how late it is known. */
export const REACH = 12;
const PLACES = 4;
const TAPS = 2 * REACH;
/** Of the Kaiser window: side lobes under −70 dB. */
const BETA = 7;

const sinc = (x: number): number => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));

/** The modified Bessel function of the first kind, of order 0. */
function bessel(x: number): number {
  let [sum, term] = [1, 1];
  for (let k = 1; term > 1e-12 * sum; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}
const kaiser = (x: number): number => bessel(BETA * Math.sqrt(Math.max(0, 1 - x * x))) / bessel(BETA);

/** For each place between two samples: what each of the samples around it counts. */
const weights: readonly Float64Array[] = Array.from({ length: PLACES - 1 }, (_, place) => {
  const at = (place + 1) / PLACES;
  const raw = Float64Array.from({ length: TAPS }, (_, j) => {
    const x = at - (j - REACH + 1);
    return sinc(x) * kaiser(x / REACH);
  });
  const sum = raw.reduce((a, b) => a + b, 0);
  return raw.map((w) => w / sum);
});

/** By how much the curve can be above the samples around it, at most. */
const GROWTH = Math.max(...weights.map((w) => w.reduce((a, b) => a + Math.abs(b), 0)));

/** The peaks of one channel, samples and what lies between them. */
export class TruePeak {
  /** The last samples, twice, so that they lie in one piece from anywhere. */
  private readonly last = new Float64Array(2 * TAPS);
  private at = 0;
  /** For how many more samples one that matters is among the last. */
  private matters = 0;

  /** @param floor peaks below this are not looked for between samples. */
  constructor(private readonly floor: number) {}

  /** @returns the greatest of this sample and of the curve `REACH` samples ago; of what is below the floor, the sample. */
  next(x: number): number {
    const { last } = this;
    last[this.at] = x;
    last[this.at + TAPS] = x;
    this.at = this.at + 1 === TAPS ? 0 : this.at + 1;
    let peak = Math.abs(x);
    if (peak * GROWTH > this.floor) this.matters = TAPS;
    if (this.matters === 0) return peak;
    this.matters--;
    for (const w of weights) {
      let sum = 0;
      for (let j = 0; j < TAPS; j++) sum += (w[j] as number) * (last[this.at + j] as number);
      if (sum > peak) peak = sum;
      else if (-sum > peak) peak = -sum;
    }
    return peak;
  }
}
