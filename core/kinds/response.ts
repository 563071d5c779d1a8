import { exp } from '../law/fastmath';
import type { Laws } from '../law/builder';
import { doubling } from '../law/affine';
import type { Curve, Affine } from '../law/affine';

/** ln 1000: an exponential response spans 60 dB between rest and unity. */
const K = Math.log(1000);
const scale = Math.exp(K) - 1;

/** From a straight line (`bend` 0) to the exponential `(e^(kx) − 1)/(e^k − 1)` (1); x >= 0. */
function bent(x: number, bend: number): number {
  if (bend === 0) return x;
  // Without its straight part an infinite control must not come to 0 times infinity.
  return (bend === 1 ? 0 : (1 - bend) * x) + bend * ((exp(K * x) - 1) / scale);
}

/** A share of unity at which every gain has met its maximum; further on its power would overflow. */
const BEYOND = 4;

const slopeAt = (x: number, bend: number): number => 1 - bend + (bend * K * Math.exp(K * x)) / scale;

/** The gain of an amplifier at the share `x` of its unity voltage; odd in four quadrants, 0 below zero in two. */
export function responseCurve(bend: number, quadrants: 2 | 4, maxGain: number): Curve {
  const key = `response ${bend} ${quadrants} ${maxGain}`;
  const low = quadrants === 2 ? 0 : -maxGain;
  if (bend === 0) {
    return { key, f: (x) => Math.min(maxGain, Math.max(low, x)), kinks: [low, maxGain] };
  }
  const f = (x: number): number => {
    if (x < 0) return quadrants === 2 ? 0 : -Math.min(maxGain, bent(-x, bend));
    return Math.min(maxGain, bent(x, bend));
  };
  const minSlope = (lo: number, hi: number): number => {
    if (f(hi) >= maxGain || f(lo) <= low) return 0;
    return lo <= 0 && hi >= 0 ? slopeAt(0, bend) : slopeAt(Math.min(Math.abs(lo), Math.abs(hi)), bend);
  };
  return { key, f, minSlope };
}

interface Response {
  readonly response: number;
  readonly quadrants: 2 | 4;
  readonly maxGain: number;
}

/**
 * The same gain of a voltage that changes. The two pure responses of two quadrants are said in parts, which bounds
 * can see through and blocks of samples run fast.
 */
export function respond(b: Laws, x: Affine, { response, quadrants, maxGain }: Response): Affine {
  if (response === 0) return b.clamp(x, quadrants === 2 ? 0 : -maxGain, maxGain);
  if (response !== 1 || quadrants === 4) return b.curve(x, responseCurve(response, quadrants, maxGain));
  const octaves = b.scale(b.clamp(x, 0, BEYOND), K * Math.LOG2E);
  return b.clamp(b.scale(b.curve(octaves, doubling), 1 / scale, -1 / scale), 0, maxGain);
}

/** A soft limit, `limit·tanh(x/limit)`. */
export function softLimit(limit: number): Curve {
  const slope = (x: number): number => 1 / Math.cosh(x / limit) ** 2;
  return {
    key: `tanh ${limit}`,
    f: (x) => limit * Math.tanh(x / limit),
    minSlope: (lo, hi) => Math.min(slope(lo), slope(hi)),
  };
}

/** Each sample's share of the way for a lag that is 99.3% there after `seconds` (τ = seconds/5); 0 s: at once. */
export const lagShare = (seconds: number, sampleRate: number): number =>
  seconds === 0 ? 1 : -Math.expm1(-5 / (seconds * sampleRate));
