import type { Address, Compiled } from './compiled';

/** What a wave swings between, volts, and how far on it is, cycles. */
export interface Swing {
  readonly mid: number;
  readonly half: number;
  readonly shift?: number;
}

/** Three buffers whose weighted sum, in octaves, moves a frequency from `hertz` within limits. */
export interface CutoffSum {
  readonly a: Float64Array;
  readonly ka: number;
  readonly b: Float64Array;
  readonly kb: number;
  readonly c: Float64Array;
  readonly hertz: number;
  readonly lowest: number;
  readonly highest: number;
}

export interface FilterOutputs {
  readonly lowpass: Float64Array;
  readonly bandpass: Float64Array;
  readonly highpass: Float64Array;
}

/** Works on the samples `from..to-1` of the buffers that it was made for. */
export type Pass = (from: number, to: number) => void;

/** Refuses what does not lie in buffers of this length. */
function check(from: number, to: number, length: number): void {
  if (!(from >= 0 && from <= to && to <= length)) throw new RangeError(`samples ${from} to ${to} of ${length}`);
}

/**
 * The compiled loops over buffers of one arena. Each is bound to its buffers once: they must lie in the arena, and a pass
 * beyond the end of the shortest is refused, so that nothing is written where it does not belong.
 */
export class Kernels {
  constructor(
    private readonly compiled: Compiled,
    private readonly memory: ArrayBufferLike,
  ) {}

  /** Where a buffer begins. */
  private at(x: Float64Array): Address {
    if (x.buffer !== this.memory) throw new TypeError('the buffer lies in no arena, or in another');
    return x.byteOffset;
  }

  /** How many samples all buffers of a pass have, and where each begins. */
  private spans<const X extends readonly Float64Array[]>(
    ...xs: X
  ): readonly [length: number, ...addresses: { [K in keyof X]: Address }] {
    return [Math.min(...xs.map((x) => x.length)), ...xs.map((x) => this.at(x))] as never;
  }

  /** The same of a buffer that holds a few numbers. */
  private few(x: Float64Array, count: number): Address {
    if (x.length < count) throw new RangeError(`room for ${x.length} of ${count} numbers`);
    return this.at(x);
  }

  fill(c: number, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, to8] = this.spans(out);
    return (from, to) => {
      check(from, to, length);
      compiled.fill(c, to8 + 8 * from, to - from);
    };
  }

  /** `out = c + k·x` */
  scaled(x: Float64Array, k: number, c: number, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, x8, out8] = this.spans(x, out);
    return (from, to) => {
      check(from, to, length);
      compiled.scaled(x8 + 8 * from, k, c, out8 + 8 * from, to - from);
    };
  }

  /** `out = c + ka·a + kb·b` */
  sumOfTwo(a: Float64Array, ka: number, b: Float64Array, kb: number, c: number, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, a8, b8, out8] = this.spans(a, b, out);
    return (from, to) => {
      check(from, to, length);
      const at = 8 * from;
      compiled.sumOfTwo(a8 + at, ka, b8 + at, kb, c, out8 + at, to - from);
    };
  }

  /** `out += k·x` */
  addScaled(x: Float64Array, k: number, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, x8, out8] = this.spans(x, out);
    return (from, to) => {
      check(from, to, length);
      compiled.addScaled(x8 + 8 * from, k, out8 + 8 * from, to - from);
    };
  }

  /** `out = a·b` */
  products(a: Float64Array, b: Float64Array, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, a8, b8, out8] = this.spans(a, b, out);
    return (from, to) => {
      check(from, to, length);
      const at = 8 * from;
      compiled.products(a8 + at, b8 + at, out8 + at, to - from);
    };
  }

  /** `out = 2^x` */
  powers(x: Float64Array, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, x8, out8] = this.spans(x, out);
    return (from, to) => {
      check(from, to, length);
      compiled.powers(x8 + 8 * from, out8 + 8 * from, to - from);
    };
  }

  clamped(x: Float64Array, min: number, max: number, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, x8, out8] = this.spans(x, out);
    return (from, to) => {
      check(from, to, length);
      compiled.clamped(x8 + 8 * from, min, max, out8 + 8 * from, to - from);
    };
  }

  /** Holds `x` at the rails, then leaves of it what loading does; adds samples below and above to `counts`. */
  saturate(x: Float64Array, rail: number, counts: Float64Array): (from: number, to: number, factor: number) => void {
    const { compiled } = this;
    const [x8, counts8, length] = [this.at(x), this.few(counts, 2), x.length];
    return (from, to, factor) => {
      check(from, to, length);
      compiled.saturate(x8 + 8 * from, to - from, rail, factor, counts8);
    };
  }

  /** Adds to `least, greatest, sum, sum of squares`. */
  extremesAndSums(x: Float64Array, acc: Float64Array): Pass {
    const { compiled } = this;
    const [x8, acc8, length] = [this.at(x), this.few(acc, 4), x.length];
    return (from, to) => {
      check(from, to, length);
      compiled.extremesAndSums(x8 + 8 * from, to - from, acc8);
    };
  }

  /** Adds to `least, greatest`. */
  extremes(x: Float64Array, acc: Float64Array): Pass {
    const { compiled } = this;
    const [x8, acc8, length] = [this.at(x), this.few(acc, 2), x.length];
    return (from, to) => {
      check(from, to, length);
      compiled.extremes(x8 + 8 * from, to - from, acc8);
    };
  }

  /** Adds to `below, at or below, above` a window. */
  countOutside(x: Float64Array, low: number, high: number, acc: Float64Array): Pass {
    const { compiled } = this;
    const [x8, acc8, length] = [this.at(x), this.few(acc, 3), x.length];
    return (from, to) => {
      check(from, to, length);
      compiled.countOutside(x8 + 8 * from, to - from, low, high, acc8);
    };
  }

  /** Counts of cycles from `start`, the first sample being the `k`-th of its stretch. */
  phases(
    cycles: Float64Array,
    sampleRate: number,
  ): (from: number, to: number, start: number, hertz: number, k: number) => void {
    const { compiled } = this;
    const [length, out8] = this.spans(cycles);
    return (from, to, start, hertz, k) => {
      check(from, to, length);
      compiled.phases(start, hertz, k, sampleRate, out8 + 8 * from, to - from);
    };
  }

  /**
   * Phases within their cycle at frequencies that move, the sample `from` being the `k`-th.
   *
   * @param state the phase at which the frequency last changed, the sample, and that frequency; it is carried on.
   */
  sweep(
    hertz: Float64Array,
    sampleRate: number,
    state: Float64Array,
    out: Float64Array,
  ): (from: number, to: number, k: number) => void {
    const { compiled } = this;
    const [length, hertz8, out8] = this.spans(hertz, out);
    const state8 = this.few(state, 3);
    return (from, to, k) => {
      check(from, to, length);
      compiled.sweep(hertz8 + 8 * from, sampleRate, k, state8, out8 + 8 * from, to - from);
    };
  }

  withinCycles(x: Float64Array, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, x8, out8] = this.spans(x, out);
    return (from, to) => {
      check(from, to, length);
      compiled.withinCycles(x8 + 8 * from, out8 + 8 * from, to - from);
    };
  }

  /** A wave `mid + half·w` of counts of cycles, `shift` further on. */
  wave(
    shape: 'sine' | 'triangle' | 'ramp',
    cycles: Float64Array,
    { mid, half, shift = 0 }: Swing,
    out: Float64Array,
  ): Pass {
    const { compiled } = this;
    const [length, x8, out8] = this.spans(cycles, out);
    return (from, to) => {
      check(from, to, length);
      compiled[shape](x8 + 8 * from, shift, mid, half, out8 + 8 * from, to - from);
    };
  }

  square(cycles: Float64Array, width: number, { mid, half, shift = 0 }: Swing, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, x8, out8] = this.spans(cycles, out);
    return (from, to) => {
      check(from, to, length);
      compiled.square(x8 + 8 * from, shift, width, mid, half, out8 + 8 * from, to - from);
    };
  }

  /** A band-limited saw of phases within their cycle, and the steps from each to the next. */
  saw(phase: Float64Array, steps: Float64Array, { mid, half }: Swing, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, x8, steps8, out8] = this.spans(phase, steps, out);
    return (from, to) => {
      check(from, to, length);
      const at = 8 * from;
      compiled.saw(x8 + at, steps8 + at, mid, half, out8 + at, to - from);
    };
  }

  /** The same, a pulse whose width a voltage moves. */
  pulse(
    phase: Float64Array,
    steps: Float64Array,
    width: { readonly cv: Float64Array; readonly amount: number; readonly atZero: number },
    { mid, half }: Swing,
    out: Float64Array,
  ): Pass {
    const { compiled } = this;
    const [length, x8, steps8, cv8, out8] = this.spans(phase, steps, width.cv, out);
    const { amount, atZero } = width;
    return (from, to) => {
      check(from, to, length);
      const at = 8 * from;
      compiled.pulse(x8 + at, steps8 + at, cv8 + at, atZero, amount, mid, half, out8 + at, to - from);
    };
  }

  /** A filter's coefficients at each sample: `hertz·2^(ka·a + kb·b + c)` within its limits. */
  cutoffs({ a, ka, b, kb, c, hertz, lowest, highest }: CutoffSum, sampleRate: number, out: Float64Array): Pass {
    const { compiled } = this;
    const [length, a8, b8, c8, out8] = this.spans(a, b, c, out);
    const perHertz = 1 / (2 * sampleRate);
    return (from, to) => {
      check(from, to, length);
      const at = 8 * from;
      compiled.cutoffs(a8 + at, ka, b8 + at, kb, c8 + at, hertz, lowest, highest, perHertz, out8 + at, to - from);
    };
  }

  /** A state-variable filter; `state` holds its two integrators and its band-pass and low-pass voltages: it sings where damping is below 0. */
  stateVariable(
    x: Float64Array,
    coefficients: Float64Array,
    damping: number,
    state: Float64Array,
    { lowpass, bandpass, highpass }: FilterOutputs,
  ): Pass {
    const { compiled } = this;
    const state8 = this.few(state, 4);
    const run = damping < 0 ? compiled.singing : compiled.stateVariable;
    const [length, x8, g8, low8, band8, high8] = this.spans(x, coefficients, lowpass, bandpass, highpass);
    return (from, to) => {
      check(from, to, length);
      const at = 8 * from;
      run(x8 + at, g8 + at, damping, state8, low8 + at, band8 + at, high8 + at, to - from);
    };
  }

  /** A lag: from `v` at most `ups` and `downs` a sample (`line`), or that share of the way (`share`); the last voltage. */
  slew(
    law: 'line' | 'share',
    x: Float64Array,
    ups: Float64Array,
    downs: Float64Array,
    out: Float64Array,
  ): (from: number, to: number, v: number) => number {
    const { compiled } = this;
    const [length, x8, ups8, downs8, out8] = this.spans(x, ups, downs, out);
    const name = law === 'line' ? 'lineSlew' : 'shareSlew';
    return (from, to, v) => {
      check(from, to, length);
      const at = 8 * from;
      return compiled[name](x8 + at, ups8 + at, downs8 + at, v, out8 + at, to - from);
    };
  }
}
