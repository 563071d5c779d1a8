import FFT from 'fft.js';

/** A recording laid over a prediction. */
export interface Overlay {
  readonly sampleRate: number;
  /** Samples by which the recording begins after the prediction; below 0 before it. */
  readonly shift: number;
  /** The recording times this, plus `offset`, is nearest to the prediction. */
  readonly scale: number;
  readonly offset: number;
  /** Of the difference, where they lie over each other: volts, and percent of the prediction’s own RMS about its mean. */
  readonly residualVolts: number;
  readonly residualPercent: number;
  /** Where they lie over each other, in step: prediction, recording in volts, difference. */
  readonly predicted: Float64Array;
  readonly recorded: Float64Array;
}

export interface OverlayOptions {
  /** The recording is in volts already: scale 1 and offset 0. */
  readonly fixed?: boolean;
}

export interface TraceOf {
  readonly volts: ArrayLike<number>;
  readonly sampleRate: number;
}

/** The least share of the shorter of both that must lie over the other. */
const LEAST_OVER = 0.5;

/** Samples at another rate, straight in between. */
export function resampled({ volts, sampleRate }: TraceOf, rate: number): Float64Array {
  if (sampleRate === rate) return Float64Array.from(volts);
  const length = Math.max(1, Math.floor((volts.length * rate) / sampleRate));
  return Float64Array.from({ length }, (_, k) => {
    const at = (k * sampleRate) / rate;
    const i = Math.min(volts.length - 1, Math.floor(at));
    const [a, b] = [volts[i] as number, volts[Math.min(volts.length - 1, i + 1)] as number];
    return a + (b - a) * (at - i);
  });
}

const meanOf = (x: ArrayLike<number>): number => {
  let sum = 0;
  for (let k = 0; k < x.length; k++) sum += x[k] as number;
  return sum / Math.max(1, x.length);
};

/** `Σ a(k)·b(k − shift)` at every shift, circular over a length that no wrap reaches. */
function correlated(a: ArrayLike<number>, b: ArrayLike<number>, size: number): Float64Array {
  const fft = new FFT(size);
  const spectrum = (x: ArrayLike<number>): number[] => {
    const input = new Array<number>(size).fill(0);
    for (let k = 0; k < x.length; k++) input[k] = x[k] as number;
    const out = fft.createComplexArray() as number[];
    fft.realTransform(out, input);
    fft.completeSpectrum(out);
    return out;
  };
  const [fa, fb] = [spectrum(a), spectrum(b)];
  for (let k = 0; k < size; k++) {
    const [ar, ai] = [fa[2 * k] as number, fa[2 * k + 1] as number];
    const [br, bi] = [fb[2 * k] as number, fb[2 * k + 1] as number];
    fa[2 * k] = ar * br + ai * bi;
    fa[2 * k + 1] = ai * br - ar * bi;
  }
  const back = fft.createComplexArray() as number[];
  fft.inverseTransform(back, fa);
  return Float64Array.from({ length: size }, (_, k) => back[2 * k] as number);
}

/** A recording is taken for upside down only where it is more alike by this. */
const UPSIDE_DOWN = 0.02;

/** Running sums, so that what lies over the other need not be added up at every shift. */
function summed(x: ArrayLike<number>, of: (v: number) => number): Float64Array {
  const sums = new Float64Array(x.length + 1);
  for (let k = 0; k < x.length; k++) sums[k + 1] = (sums[k] as number) + of(x[k] as number);
  return sums;
}

/**
 * The shift at which a recording is most alike to a prediction: the greatest correlation of what lies over each other,
 * of either sign unless the recording is in volts.
 */
function bestShift(predicted: Float64Array, recorded: Float64Array, fixed: boolean): number {
  const size = 2 ** Math.ceil(Math.log2(predicted.length + recorded.length));
  const [mp, mr] = [meanOf(predicted), meanOf(recorded)];
  const p = predicted.map((v) => v - mp);
  const r = recorded.map((v) => v - mr);
  const products = correlated(p, r, size);
  const sums = {
    p: summed(p, (v) => v),
    pp: summed(p, (v) => v * v),
    r: summed(r, (v) => v),
    rr: summed(r, (v) => v * v),
  };
  const over = (s: Float64Array, from: number, to: number): number => (s[to] as number) - (s[from] as number);
  const least = LEAST_OVER * Math.min(p.length, r.length);
  const first = 1 - r.length;
  const scores = new Float64Array(p.length + r.length - 1).fill(-Infinity);
  for (let shift = first; shift < p.length; shift++) {
    const [from, to] = [Math.max(0, shift), Math.min(p.length, shift + r.length)];
    const n = to - from;
    if (n < least) continue;
    const [sp, spp] = [over(sums.p, from, to), over(sums.pp, from, to)];
    const [sr, srr] = [over(sums.r, from - shift, to - shift), over(sums.rr, from - shift, to - shift)];
    const together = (products[shift < 0 ? shift + size : shift] as number) - (sp * sr) / n;
    const apart = Math.sqrt(Math.max(0, spp - (sp * sp) / n) * Math.max(0, srr - (sr * sr) / n));
    const alike = apart > 1e-12 ? together / apart : 0;
    scores[shift - first] = alike >= 0 || fixed ? alike : -alike - UPSIDE_DOWN;
  }
  return nearestPeak(scores, first);
}

/** What repeats is as alike a period on: of peaks that are as high but for this, the one with the least shift. */
const AS_HIGH = 0.01;

function nearestPeak(scores: Float64Array, first: number): number {
  const most = scores.reduce((a, b) => Math.max(a, b), -Infinity);
  let best: number | null = null;
  scores.forEach((score, i) => {
    const peak = score >= (scores[i - 1] ?? -Infinity) && score >= (scores[i + 1] ?? -Infinity);
    if (!peak || score < most - AS_HIGH) return;
    if (best === null || Math.abs(i + first) < Math.abs(best)) best = i + first;
  });
  return best ?? 0;
}

/** Scale and offset that bring `r` nearest to `p`, least squares. */
function lineThrough(p: Float64Array, r: Float64Array): { readonly scale: number; readonly offset: number } {
  const [mp, mr] = [meanOf(p), meanOf(r)];
  let [rr, pr] = [0, 0];
  for (let k = 0; k < p.length; k++) {
    rr += ((r[k] as number) - mr) ** 2;
    pr += ((p[k] as number) - mp) * ((r[k] as number) - mr);
  }
  const scale = rr > 1e-18 ? pr / rr : 1;
  return { scale, offset: mp - scale * mr };
}

const rmsOf = (x: Float64Array, about = 0): number =>
  Math.sqrt(x.reduce((sum, v) => sum + (v - about) ** 2, 0) / Math.max(1, x.length));

/**
 * Lays a recording over a prediction: shifted to the sample by cross-correlation, then scaled and offset by least squares
 * unless both are fixed.
 *
 * @returns null where one of them holds nothing.
 */
export function layOver(
  prediction: TraceOf,
  recording: TraceOf,
  { fixed = false }: OverlayOptions = {},
): Overlay | null {
  const { sampleRate } = prediction;
  if (prediction.volts.length < 2 || recording.volts.length < 2) return null;
  const whole = Float64Array.from(prediction.volts);
  const taken = resampled(recording, sampleRate);
  const shift = bestShift(whole, taken, fixed);
  const [from, to] = [Math.max(0, shift), Math.min(whole.length, shift + taken.length)];
  const predicted = whole.slice(from, to);
  const raw = taken.slice(from - shift, to - shift);
  const { scale, offset } = fixed ? { scale: 1, offset: 0 } : lineThrough(predicted, raw);
  const recorded = raw.map((v) => scale * v + offset);
  const residualVolts = rmsOf(recorded.map((v, k) => v - (predicted[k] as number)));
  const own = rmsOf(predicted, meanOf(predicted));
  return {
    sampleRate,
    shift,
    scale,
    offset,
    residualVolts,
    residualPercent: own > 0 ? (100 * residualVolts) / own : 0,
    predicted,
    recorded,
  };
}
