/** Running extremes, sums and counts. */

/** Adds a block to `least, greatest, sum, sum of squares` at `acc`. */
export function extremesAndSums(x: usize, n: i32, acc: usize): void {
  let lows = f64x2.splat(load<f64>(acc));
  let highs = f64x2.splat(load<f64>(acc, 8));
  let sums = f64x2.splat(0);
  let moreSums = f64x2.splat(0);
  let squares = f64x2.splat(0);
  let moreSquares = f64x2.splat(0);
  const end = x + ((<usize>n) << 3);
  for (; x + 32 <= end; x += 32) {
    const v = v128.load(x);
    const w = v128.load(x, 16);
    lows = f64x2.pmin(f64x2.pmin(lows, v), w);
    highs = f64x2.pmax(f64x2.pmax(highs, v), w);
    sums = f64x2.add(sums, v);
    moreSums = f64x2.add(moreSums, w);
    squares = f64x2.add(squares, f64x2.mul(v, v));
    moreSquares = f64x2.add(moreSquares, f64x2.mul(w, w));
  }
  sums = f64x2.add(sums, moreSums);
  squares = f64x2.add(squares, moreSquares);
  let low = least(lows);
  let high = greatest(highs);
  let sum = f64x2.extract_lane(sums, 0) + f64x2.extract_lane(sums, 1);
  let square = f64x2.extract_lane(squares, 0) + f64x2.extract_lane(squares, 1);
  for (; x < end; x += 8) {
    const v = load<f64>(x);
    if (v < low) low = v;
    if (v > high) high = v;
    sum += v;
    square += v * v;
  }
  store<f64>(acc, low);
  store<f64>(acc, high, 8);
  store<f64>(acc, load<f64>(acc, 16) + sum, 16);
  store<f64>(acc, load<f64>(acc, 24) + square, 24);
}

function least(v: v128): f64 {
  const a = f64x2.extract_lane(v, 0);
  const b = f64x2.extract_lane(v, 1);
  return b < a ? b : a;
}

function greatest(v: v128): f64 {
  const a = f64x2.extract_lane(v, 0);
  const b = f64x2.extract_lane(v, 1);
  return b > a ? b : a;
}

/** Adds a block to `least, greatest` at `acc`. */
export function extremes(x: usize, n: i32, acc: usize): void {
  let lows = f64x2.splat(load<f64>(acc));
  let highs = f64x2.splat(load<f64>(acc, 8));
  const end = x + ((<usize>n) << 3);
  for (; x + 16 <= end; x += 16) {
    const v = v128.load(x);
    lows = f64x2.pmin(lows, v);
    highs = f64x2.pmax(highs, v);
  }
  let low = least(lows);
  let high = greatest(highs);
  if (x < end) {
    const v = load<f64>(x);
    if (v < low) low = v;
    if (v > high) high = v;
  }
  store<f64>(acc, low);
  store<f64>(acc, high, 8);
}

/** This close to an end of a window counts as at it. Volts. */
const MARGIN: f64 = 1e-9;

/** Adds to `below, at or below, above` the window `low..high` at `acc`. */
export function countOutside(x: usize, n: i32, low: f64, high: f64, acc: usize): void {
  const unders = f64x2.splat(low - MARGIN);
  const ats = f64x2.splat(low + MARGIN);
  const overs = f64x2.splat(high + MARGIN);
  let below = i64x2.splat(0);
  let atOrBelow = i64x2.splat(0);
  let above = i64x2.splat(0);
  const end = x + ((<usize>n) << 3);
  for (; x + 16 <= end; x += 16) {
    const v = v128.load(x);
    below = i64x2.sub(below, f64x2.lt(v, unders));
    atOrBelow = i64x2.sub(atOrBelow, f64x2.le(v, ats));
    above = i64x2.sub(above, f64x2.gt(v, overs));
  }
  let belows = both(below);
  let atOrBelows = both(atOrBelow);
  let aboves = both(above);
  if (x < end) {
    const v = load<f64>(x);
    if (v < low - MARGIN) belows++;
    if (v <= low + MARGIN) atOrBelows++;
    if (v > high + MARGIN) aboves++;
  }
  store<f64>(acc, load<f64>(acc) + <f64>belows);
  store<f64>(acc, load<f64>(acc, 8) + <f64>atOrBelows, 8);
  store<f64>(acc, load<f64>(acc, 16) + <f64>aboves, 16);
}

function both(counts: v128): i64 {
  return i64x2.extract_lane(counts, 0) + i64x2.extract_lane(counts, 1);
}
