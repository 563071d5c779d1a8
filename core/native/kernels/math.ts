/**
 * Powers of two, sines and tangents of two voltages at a time, to a few 1e-16. The polynomials of sine and cosine on
 * ±π/4 are those of the freely usable msun library (k_sin.c, k_cos.c); 2^x is its Taylor series on ±ln 2 / 2.
 */

/**
 * The constants stand in memory: an engine loads one in an instruction, where it would make a constant of the code
 * anew in every round of a loop, in three.
 */
const TABLE: usize = memory.data<f64>([
  // 0: 1/12! down to 1/0! of 2^x.
  1 / 479001600, 1 / 39916800, 1 / 3628800, 1 / 362880, 1 / 40320, 1 / 5040, 1 / 720, 1 / 120, 1 / 24, 1 / 6, 0.5, 1, 1,
  // 104: the sine's.
  1.58969099521155010221e-10, -2.50507602534068634195e-8, 2.75573137070700676789e-6, -1.98412698298579493134e-4,
  8.33333333332248946124e-3, -1.66666666666666324348e-1,
  // 152: the cosine's.
  -1.13596475577881948265e-11, 2.0875723212981748279e-9, -2.75573143513906633035e-7, 2.48015872894767294178e-5,
  -1.38888888888741095749e-3, 4.16666666666666019037e-2,
  // 200: a turn, ln 2, then what makes bits of whole numbers: 2^52, and with the exponent's bias 1023.
  6.283185307179586, 0.6931471805599453, 4503599627370496, 4503599627371519,
  // 232: an eighth, a quarter, a half, 1, 2, 4, and how far 2^x goes.
  0.125, 0.25, 0.5, 1, 2, 4, -1022, 1023,
  // 296: the second lowest bit.
  1e-323,
]); // prettier-ignore

/** The constant at an offset of the table, twice. */
function constant(offset: usize): v128 {
  return v128.load64_splat(TABLE + offset);
}

/** `p·x` and the constant at an offset: a step of Horner's scheme. */
function step(p: v128, x: v128, offset: usize): v128 {
  return f64x2.add(f64x2.mul(p, x), constant(offset));
}

const TURN: usize = 200;
const LN2: usize = 208;
const TO_BITS: usize = 216;
const TO_EXPONENT: usize = 224;
const EIGHTH: usize = 232;
const QUARTER: usize = 240;
const HALF: usize = 248;
const ONE: usize = 256;
const FOUR: usize = 272;
const LEAST: usize = 280;
const MOST: usize = 288;
const TWO_BIT: usize = 296;

/** `2^x`, x held to −1022..1023. */
export function exp2(x: v128): v128 {
  x = f64x2.pmax(f64x2.pmin(x, constant(MOST)), constant(LEAST));
  const whole = f64x2.nearest(x);
  const r = f64x2.mul(f64x2.sub(x, whole), constant(LN2));
  // In pairs (Estrin's scheme): the sums need not wait for each other.
  const r2 = f64x2.mul(r, r);
  const r4 = f64x2.mul(r2, r2);
  const low = f64x2.add(step(constant(88), r, 96), f64x2.mul(r2, step(constant(72), r, 80)));
  const middle = f64x2.add(step(constant(56), r, 64), f64x2.mul(r2, step(constant(40), r, 48)));
  const high = f64x2.add(step(constant(24), r, 32), f64x2.mul(r2, step(constant(8), r, 16)));
  const top = f64x2.add(high, f64x2.mul(r4, constant(0)));
  const p = f64x2.add(low, f64x2.mul(r4, f64x2.add(middle, f64x2.mul(r4, top))));
  return f64x2.mul(p, i64x2.shl(f64x2.add(whole, constant(TO_EXPONENT)), 52));
}

/** Six terms of a polynomial in z whose constants stand from `offset` on, the highest first. */
function sixTerms(z: v128, offset: usize): v128 {
  const z2 = f64x2.mul(z, z);
  const low = f64x2.add(
    step(constant(offset + 32), z, offset + 40),
    f64x2.mul(z2, step(constant(offset + 16), z, offset + 24)),
  );
  return f64x2.add(low, f64x2.mul(f64x2.mul(z2, z2), step(constant(offset), z, offset + 8)));
}

/** `sin b` for b within ±π/4; `z` is b². */
function smallSine(b: v128, z: v128): v128 {
  return f64x2.add(b, f64x2.mul(f64x2.mul(b, z), sixTerms(z, 104)));
}

/** `cos b` for b within ±π/4; `z` is b². */
function smallCosine(z: v128): v128 {
  const most = f64x2.sub(constant(ONE), f64x2.mul(z, constant(HALF)));
  return f64x2.add(most, f64x2.mul(f64x2.mul(z, z), sixTerms(z, 152)));
}

/** `sin(2π·phase)` for phases 0..1; exact at quarter turns. */
export function sineOfTurn(phase: v128): v128 {
  const quarters = f64x2.nearest(f64x2.mul(phase, constant(FOUR)));
  const b = f64x2.mul(f64x2.sub(phase, f64x2.mul(quarters, constant(QUARTER))), constant(TURN));
  const z = f64x2.mul(b, b);
  // Quarters 0 to 4: sine, cosine, minus sine, minus cosine, sine. Their two lowest bits say which.
  const bits = f64x2.add(quarters, constant(TO_BITS));
  const even = i64x2.eq(i64x2.shl(bits, 63), f64x2.splat(0));
  const minus = i64x2.shl(v128.and(bits, constant(TWO_BIT)), 62);
  return v128.xor(v128.bitselect(smallSine(b, z), smallCosine(z), even), minus);
}

/** `tan(2π·phase)` for phases from 0 up to below a quarter. */
export function tangentOfTurn(phase: v128): v128 {
  const late = f64x2.gt(phase, constant(EIGHTH));
  const b = f64x2.mul(f64x2.sub(phase, v128.and(late, constant(QUARTER))), constant(TURN));
  const z = f64x2.mul(b, b);
  const s = smallSine(b, z);
  const c = smallCosine(z);
  return f64x2.div(v128.bitselect(c, s, late), v128.bitselect(f64x2.neg(s), c, late));
}

/** Stores two samples, or the first alone where only that many bytes are left. */
export function put(at: usize, v: v128, left: usize): void {
  if (left >= 16) v128.store(at, v);
  else v128.store64_lane(at, v, 0);
}
