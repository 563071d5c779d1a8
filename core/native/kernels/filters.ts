import { exp2, put, tangentOfTurn } from './math';

/** Filters and lags: what each sample makes of the last. */

/** `tan(π·f/sampleRate)` for `f = hertz·2^(ka·a + kb·b + c)` held to `lowest..highest`; `perHertz` is 1/(2·sampleRate). */
export function cutoffs(
  a: usize,
  ka: f64,
  b: usize,
  kb: f64,
  c: usize,
  hertz: f64,
  lowest: f64,
  highest: f64,
  perHertz: f64,
  out: usize,
  n: i32,
): void {
  const kas = f64x2.splat(ka);
  const kbs = f64x2.splat(kb);
  const hertzs = f64x2.splat(hertz);
  const lows = f64x2.splat(lowest);
  const highs = f64x2.splat(highest);
  const shares = f64x2.splat(perHertz);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    const first = f64x2.add(f64x2.mul(kas, v128.load(a + i)), f64x2.mul(kbs, v128.load(b + i)));
    const octaves = f64x2.add(first, v128.load(c + i));
    const f = f64x2.mul(hertzs, exp2(octaves));
    const safe = f64x2.pmin(f64x2.pmax(f, lows), highs);
    put(out + i, tangentOfTurn(f64x2.mul(safe, shares)), end - i);
  }
}

/**
 * A state-variable filter by the topology-preserving transform (Zavalishin, "The Art of VA Filter Design", ch. 4):
 * 12 dB an octave, damping 2R, each sample with its own coefficient. `state` holds its two integrators.
 */
export function stateVariable(
  x: usize,
  gs: usize,
  damping: f64,
  state: usize,
  lowpass: usize,
  bandpass: usize,
  highpass: usize,
  n: i32,
): void {
  let s1 = load<f64>(state);
  let s2 = load<f64>(state, 8);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 8) {
    const g = load<f64>(gs + i);
    const share = 1 / (1 + damping * g + g * g);
    const high = (load<f64>(x + i) - (damping + g) * s1 - s2) * share;
    const band = g * high + s1;
    const low = g * band + s2;
    s1 = g * high + band;
    s2 = g * band + low;
    store<f64>(lowpass + i, low);
    store<f64>(bandpass + i, damping * band);
    store<f64>(highpass + i, high);
  }
  store<f64>(state, s1);
  store<f64>(state, s2, 8);
}

/**
 * The same beyond its resonance: its damping, below 0 at rest, grows with the band-pass and low-pass voltages of the
 * sample before, so that it sings. `state` holds its two integrators and those two voltages.
 */
export function singing(
  x: usize,
  gs: usize,
  damping: f64,
  state: usize,
  lowpass: usize,
  bandpass: usize,
  highpass: usize,
  n: i32,
): void {
  let s1 = load<f64>(state);
  let s2 = load<f64>(state, 8);
  let band = load<f64>(state, 16);
  let low = load<f64>(state, 24);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 8) {
    const g = load<f64>(gs + i);
    const held = damping + 0.0465 * (band * band + low * low);
    const share = 1 / (1 + held * g + g * g);
    const high = (load<f64>(x + i) - (held + g) * s1 - s2) * share;
    band = g * high + s1;
    low = g * band + s2;
    s1 = g * high + band;
    s2 = g * band + low;
    store<f64>(lowpass + i, low);
    store<f64>(bandpass + i, band);
    store<f64>(highpass + i, high);
  }
  store<f64>(state, s1);
  store<f64>(state, s2, 8);
  store<f64>(state, band, 16);
  store<f64>(state, low, 24);
}

/** At most `ups[i]` up and `downs[i]` down from sample to sample, volts; answers the last value. */
export function lineSlew(x: usize, ups: usize, downs: usize, v: f64, out: usize, n: i32): f64 {
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 8) {
    const target = load<f64>(x + i);
    const up = v + load<f64>(ups + i);
    const down = v - load<f64>(downs + i);
    v = target > up ? up : target < down ? down : target;
    store<f64>(out + i, v);
  }
  return v;
}

/** The share `ups[i]` or `downs[i]` of the way at each sample; answers the last value. */
export function shareSlew(x: usize, ups: usize, downs: usize, v: f64, out: usize, n: i32): f64 {
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 8) {
    const target = load<f64>(x + i);
    const share = target > v ? load<f64>(ups + i) : load<f64>(downs + i);
    v = share < 1 ? v + (target - v) * share : target;
    store<f64>(out + i, v);
  }
  return v;
}
