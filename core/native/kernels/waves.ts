import { put, sineOfTurn } from './math';

/** Phases and waves. Phases are cycles; `mid` and `half` are volts: a wave is `mid + half·w(phase)`. */

/** A phase this close to an edge is on it. Cycles. */
const EDGE: f64 = 1e-9;

/** The part of a cycle count within its cycle, 0 up to below 1. */
function within(cycles: v128): v128 {
  const whole = f64x2.floor(f64x2.add(cycles, f64x2.splat(EDGE)));
  return f64x2.pmax(f64x2.sub(cycles, whole), f64x2.splat(0));
}

/** `start + hertz·(k + i)/sampleRate` for i = 0..n-1. */
export function phases(start: f64, hertz: f64, k: f64, sampleRate: f64, out: usize, n: i32): void {
  let ks = f64x2.add(f64x2.splat(k), f64x2.replace_lane(f64x2.splat(0), 1, 1));
  const starts = f64x2.splat(start);
  const hertzs = f64x2.splat(hertz);
  const rates = f64x2.splat(sampleRate);
  for (const end = out + ((<usize>n) << 3); out < end; out += 16) {
    put(out, f64x2.add(starts, f64x2.div(f64x2.mul(hertzs, ks), rates)), end - out);
    ks = f64x2.add(ks, f64x2.splat(2));
  }
}

/**
 * Phases within their cycle at a frequency that moves, from the `k`-th sample on. While it stays they are counted from
 * where it began to, so that they do not drift. `state` holds the phase there, that sample, and the frequency.
 */
export function sweep(hertz: usize, sampleRate: f64, k: f64, state: usize, out: usize, n: i32): void {
  let base = load<f64>(state);
  let from = load<f64>(state, 8);
  let now = load<f64>(state, 16);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 8) {
    let cycles = base + (now * (k - from)) / sampleRate;
    const next = load<f64>(hertz + i);
    if (next != now) {
      cycles -= Math.floor(cycles + EDGE);
      base = cycles;
      from = k;
      now = next;
    }
    store<f64>(out + i, Math.max(0, cycles - Math.floor(cycles + EDGE)));
    k += 1;
  }
  store<f64>(state, base);
  store<f64>(state, from, 8);
  store<f64>(state, now, 16);
}

export function withinCycles(x: usize, out: usize, n: i32): void {
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    put(out + i, within(v128.load(x + i)), end - i);
  }
}

function volts(unit: v128, mid: v128, half: v128): v128 {
  return f64x2.add(mid, f64x2.mul(half, unit));
}

export function sine(cycles: usize, shift: f64, mid: f64, half: f64, out: usize, n: i32): void {
  const shifts = f64x2.splat(shift);
  const mids = f64x2.splat(mid);
  const halves = f64x2.splat(half);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    const phase = within(f64x2.add(v128.load(cycles + i), shifts));
    put(out + i, volts(sineOfTurn(phase), mids, halves), end - i);
  }
}

/** Rising through 0 at phase 0, top at ¼, bottom at ¾. */
export function triangle(cycles: usize, shift: f64, mid: f64, half: f64, out: usize, n: i32): void {
  const shifts = f64x2.splat(shift);
  const mids = f64x2.splat(mid);
  const halves = f64x2.splat(half);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    const phase = within(f64x2.add(v128.load(cycles + i), shifts));
    const four = f64x2.mul(phase, f64x2.splat(4));
    const falling = f64x2.sub(f64x2.splat(2), four);
    const last = f64x2.sub(four, f64x2.splat(4));
    let unit = v128.bitselect(falling, last, f64x2.lt(phase, f64x2.splat(0.75)));
    unit = v128.bitselect(four, unit, f64x2.lt(phase, f64x2.splat(0.25)));
    put(out + i, volts(unit, mids, halves), end - i);
  }
}

/** From −1 at phase 0 to +1. */
export function ramp(cycles: usize, shift: f64, mid: f64, half: f64, out: usize, n: i32): void {
  const shifts = f64x2.splat(shift);
  const mids = f64x2.splat(mid);
  const halves = f64x2.splat(half);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    const phase = within(f64x2.add(v128.load(cycles + i), shifts));
    const unit = f64x2.sub(f64x2.mul(phase, f64x2.splat(2)), f64x2.splat(1));
    put(out + i, volts(unit, mids, halves), end - i);
  }
}

/** +1 while the phase is below `width`, else −1. */
export function square(cycles: usize, shift: f64, width: f64, mid: f64, half: f64, out: usize, n: i32): void {
  const shifts = f64x2.splat(shift);
  const widths = f64x2.splat(width - EDGE);
  const tops = f64x2.splat(mid + half);
  const bottoms = f64x2.splat(mid - half);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    const phase = within(f64x2.add(v128.load(cycles + i), shifts));
    put(out + i, v128.bitselect(tops, bottoms, f64x2.lt(phase, widths)), end - i);
  }
}

/**
 * The two-sample polynomial residue of a band-limited step of height 2 at phase 0
 * (Välimäki and Huovilainen, "Antialiasing oscillators in subtractive synthesis", IEEE SPM 2007).
 */
function polyBlep(phase: v128, step: v128): v128 {
  const one = f64x2.splat(1);
  const after = f64x2.div(phase, step);
  const early = f64x2.sub(f64x2.sub(f64x2.add(after, after), f64x2.mul(after, after)), one);
  const before = f64x2.div(f64x2.sub(phase, one), step);
  const late = f64x2.add(f64x2.add(f64x2.add(f64x2.mul(before, before), before), before), one);
  const residue = v128.and(late, f64x2.gt(phase, f64x2.sub(one, step)));
  return v128.bitselect(early, residue, f64x2.lt(phase, step));
}

function withinOne(x: v128): v128 {
  return f64x2.pmax(f64x2.pmin(x, f64x2.splat(1)), f64x2.splat(-1));
}

/** A band-limited saw at phases 0..1; `steps` are the phase's steps from sample to sample. */
export function saw(phase: usize, steps: usize, mid: f64, half: f64, out: usize, n: i32): void {
  const mids = f64x2.splat(mid);
  const halves = f64x2.splat(half);
  const one = f64x2.splat(1);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    const p = v128.load(phase + i);
    const bare = f64x2.sub(f64x2.add(p, p), one);
    const unit = withinOne(f64x2.sub(bare, polyBlep(p, v128.load(steps + i))));
    put(out + i, volts(unit, mids, halves), end - i);
  }
}

/** A band-limited pulse, its width `width + amount·pwm/10` held to 0.01..0.99. */
export function pulse(
  phase: usize,
  steps: usize,
  pwm: usize,
  width: f64,
  amount: f64,
  mid: f64,
  half: f64,
  out: usize,
  n: i32,
): void {
  const mids = f64x2.splat(mid);
  const halves = f64x2.splat(half);
  const one = f64x2.splat(1);
  for (let i: usize = 0, end: usize = (<usize>n) << 3; i < end; i += 16) {
    const p = v128.load(phase + i);
    const step = v128.load(steps + i);
    const bent = f64x2.div(f64x2.mul(f64x2.splat(amount), v128.load(pwm + i)), f64x2.splat(10));
    const wide = f64x2.add(f64x2.splat(width), bent);
    const w = f64x2.pmin(f64x2.pmax(wide, f64x2.splat(0.01)), f64x2.splat(0.99));
    const bare = v128.bitselect(one, f64x2.splat(-1), f64x2.lt(p, w));
    const fall = within(f64x2.sub(f64x2.add(p, one), w));
    const unit = f64x2.sub(f64x2.add(bare, polyBlep(p, step)), polyBlep(fall, step));
    put(out + i, volts(withinOne(unit), mids, halves), end - i);
  }
}
