/** An address in the kernels' memory, bytes. */
export type Address = number;

/** The functions of kernels/, which says what they do. They check nothing. */
export interface Compiled {
  fill(c: number, out: Address, n: number): void;
  scaled(x: Address, k: number, c: number, out: Address, n: number): void;
  sumOfTwo(a: Address, ka: number, b: Address, kb: number, c: number, out: Address, n: number): void;
  addScaled(x: Address, k: number, out: Address, n: number): void;
  products(a: Address, b: Address, out: Address, n: number): void;
  powers(x: Address, out: Address, n: number): void;
  clamped(x: Address, min: number, max: number, out: Address, n: number): void;
  saturate(x: Address, n: number, rail: number, factor: number, counts: Address): void;
  extremesAndSums(x: Address, n: number, acc: Address): void;
  extremes(x: Address, n: number, acc: Address): void;
  countOutside(x: Address, n: number, low: number, high: number, acc: Address): void;
  phases(start: number, hertz: number, k: number, sampleRate: number, out: Address, n: number): void;
  sweep(hertz: Address, sampleRate: number, k: number, state: Address, out: Address, n: number): void;
  withinCycles(x: Address, out: Address, n: number): void;
  sine(cycles: Address, shift: number, mid: number, half: number, out: Address, n: number): void;
  triangle(cycles: Address, shift: number, mid: number, half: number, out: Address, n: number): void;
  ramp(cycles: Address, shift: number, mid: number, half: number, out: Address, n: number): void;
  square(cycles: Address, shift: number, width: number, mid: number, half: number, out: Address, n: number): void;
  saw(phase: Address, steps: Address, mid: number, half: number, out: Address, n: number): void;
  pulse(
    phase: Address,
    steps: Address,
    pwm: Address,
    width: number,
    amount: number,
    mid: number,
    half: number,
    out: Address,
    n: number,
  ): void;
  cutoffs(
    a: Address,
    ka: number,
    b: Address,
    kb: number,
    c: Address,
    hertz: number,
    lowest: number,
    highest: number,
    perHertz: number,
    out: Address,
    n: number,
  ): void;
  stateVariable(
    x: Address,
    gs: Address,
    damping: number,
    state: Address,
    lowpass: Address,
    bandpass: Address,
    highpass: Address,
    n: number,
  ): void;
  singing: Compiled['stateVariable'];
  lineSlew(x: Address, ups: Address, downs: Address, v: number, out: Address, n: number): number;
  shareSlew(x: Address, ups: Address, downs: Address, v: number, out: Address, n: number): number;
}
