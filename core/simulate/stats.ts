import { GATE_HYSTERESIS } from '../kinds/detect';

/** Running extremes and sums of a voltage. */
export class Stats {
  min = Infinity;
  max = -Infinity;
  count = 0;
  private sum = 0;
  private squares = 0;

  add(x: Float64Array, from: number, to: number): void {
    let { min, max } = this;
    // Two of each, so that one addition need not wait for the last.
    let s0 = 0;
    let s1 = 0;
    let q0 = 0;
    let q1 = 0;
    let i = from;
    for (; i + 1 < to; i += 2) {
      const v = x[i] as number;
      const w = x[i + 1] as number;
      s0 += v;
      s1 += w;
      q0 += v * v;
      q1 += w * w;
      if (v < min) min = v;
      if (v > max) max = v;
      if (w < min) min = w;
      if (w > max) max = w;
    }
    if (i < to) {
      const v = x[i] as number;
      s0 += v;
      q0 += v * v;
      if (v < min) min = v;
      if (v > max) max = v;
    }
    this.min = min;
    this.max = max;
    this.sum += s0 + s1;
    this.squares += q0 + q1;
    this.count += to - from;
  }

  get mean(): number {
    return this.count > 0 ? this.sum / this.count : 0;
  }

  get rms(): number {
    return this.count > 0 ? Math.sqrt(this.squares / this.count) : 0;
  }
}

/** How long a destination's drive voltage is outside what it responds to. */
export class DriveStats extends Stats {
  /** Samples below, at or below, above, at or above the window. */
  below = 0;
  atOrBelow = 0;
  above = 0;

  constructor(
    private readonly low: number,
    private readonly high: number,
  ) {
    super();
  }

  override add(x: Float64Array, from: number, to: number): void {
    super.add(x, from, to);
    const [low, high] = [this.low, this.high + 1e-9];
    let [below, atOrBelow, above] = [0, 0, 0];
    for (let i = from; i < to; i++) {
      const v = x[i] as number;
      if (v <= low + 1e-9) {
        atOrBelow++;
        if (v < low - 1e-9) below++;
      } else if (v > high) above++;
    }
    this.below += below;
    this.atOrBelow += atOrBelow;
    this.above += above;
  }
}

/** What a gate input makes of its voltage. */
export class GateStats {
  rises = 0;
  highSamples = 0;
  longestHigh = 0;
  private run = 0;
  private high = false;

  constructor(private readonly threshold: number) {}

  add(x: Float64Array, from: number, to: number): void {
    const low = this.threshold - GATE_HYSTERESIS;
    for (let i = from; i < to; i++) {
      const v = x[i] as number;
      if (this.high && v < low) this.high = false;
      else if (!this.high && v >= this.threshold) {
        this.high = true;
        this.rises++;
        this.run = 0;
      }
      if (!this.high) continue;
      this.highSamples++;
      this.run++;
      if (this.run > this.longestHigh) this.longestHigh = this.run;
    }
  }
}

/** The least and greatest voltage in each of a fixed number of columns: what a picture needs, none lost between. */
export class Picture {
  readonly min: Float32Array;
  readonly max: Float32Array;

  constructor(
    private readonly columns: number,
    private readonly samples: number,
  ) {
    this.min = new Float32Array(columns).fill(Infinity);
    this.max = new Float32Array(columns).fill(-Infinity);
  }

  add(x: Float64Array, count: number, k0: number): void {
    const { min, max } = this;
    const perColumn = this.samples / this.columns;
    for (let i = 0; i < count;) {
      const column = Math.min(this.columns - 1, Math.floor((k0 + i) / perColumn));
      const end = column === this.columns - 1 ? count : Math.min(count, Math.ceil((column + 1) * perColumn) - k0);
      let lo = min[column] as number;
      let hi = max[column] as number;
      for (const stop = Math.max(end, i + 1); i < stop; i++) {
        const v = x[i] as number;
        if (v < lo) lo = v;
        if (v > hi) hi = v;
      }
      min[column] = lo;
      max[column] = hi;
    }
  }
}
