import { exp2, put } from './math';

/** Sums, products and limits of blocks. `x`, `out`, ... are addresses of doubles, `n` their number. */

// Two samples at a time; an odd last one is computed with the slot behind it, which every buffer has, and stored alone.

export function fill(c: f64, out: usize, n: i32): void {
  const cs = f64x2.splat(c);
  for (const end = out + ((<usize>n) << 3); out < end; out += 16) put(out, cs, end - out);
}

export function scaled(x: usize, k: f64, c: f64, out: usize, n: i32): void {
  const ks = f64x2.splat(k);
  const cs = f64x2.splat(c);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    put(out + i, f64x2.add(cs, f64x2.mul(ks, v128.load(x + i))), end - i);
  }
}

export function sumOfTwo(a: usize, ka: f64, b: usize, kb: f64, c: f64, out: usize, n: i32): void {
  const kas = f64x2.splat(ka);
  const kbs = f64x2.splat(kb);
  const cs = f64x2.splat(c);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    const first = f64x2.add(cs, f64x2.mul(kas, v128.load(a + i)));
    put(out + i, f64x2.add(first, f64x2.mul(kbs, v128.load(b + i))), end - i);
  }
}

export function addScaled(x: usize, k: f64, out: usize, n: i32): void {
  const ks = f64x2.splat(k);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    put(out + i, f64x2.add(v128.load(out + i), f64x2.mul(ks, v128.load(x + i))), end - i);
  }
}

export function products(a: usize, b: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    put(out + i, f64x2.mul(v128.load(a + i), v128.load(b + i)), end - i);
  }
}

/** `2^x`. */
export function powers(x: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    put(out + i, exp2(v128.load(x + i)), end - i);
  }
}

/** Holds values between `min` and `max`. */
function held(v: v128, min: v128, max: v128): v128 {
  return f64x2.pmin(f64x2.pmax(v, min), max);
}

export function clamped(x: usize, min: f64, max: f64, out: usize, n: i32): void {
  const mins = f64x2.splat(min);
  const maxs = f64x2.splat(max);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    put(out + i, held(v128.load(x + i), mins, maxs), end - i);
  }
}

/** Beyond a rail by less is meeting it. Volts. */
const MARGIN: f64 = 1e-9;

/** Holds an output at its rails, then takes what loading leaves of it; counts samples below and above at `counts`. */
export function saturate(x: usize, n: i32, rail: f64, factor: f64, counts: usize): void {
  const high = f64x2.splat(rail);
  const low = f64x2.splat(-rail);
  const over = f64x2.splat(rail + MARGIN);
  const under = f64x2.splat(-rail - MARGIN);
  const factors = f64x2.splat(factor);
  let aboves = i64x2.splat(0);
  let belows = i64x2.splat(0);
  let i: usize = 0;
  for (const end: usize = (<usize>(n & ~1)) << 3; i < end; i += 16) {
    const v = v128.load(x + i);
    aboves = i64x2.sub(aboves, f64x2.gt(v, over));
    belows = i64x2.sub(belows, f64x2.lt(v, under));
    v128.store(x + i, f64x2.mul(held(v, low, high), factors));
  }
  let above = i64x2.extract_lane(aboves, 0) + i64x2.extract_lane(aboves, 1);
  let below = i64x2.extract_lane(belows, 0) + i64x2.extract_lane(belows, 1);
  if (n & 1) {
    const v = load<f64>(x + i);
    if (v > rail + MARGIN) above++;
    if (v < -rail - MARGIN) below++;
    store<f64>(x + i, min(max(v, -rail), rail) * factor);
  }
  store<f64>(counts, load<f64>(counts) + <f64>below);
  store<f64>(counts, load<f64>(counts, 8) + <f64>above, 8);
}
