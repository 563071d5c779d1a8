import type { Pass } from '../native/kernels';
import type { Arena } from '../native/native';

/** Running extremes and sums of a voltage. */
export class Stats {
  count = 0;
  /** Least, greatest, sum, sum of squares. */
  private readonly acc: Float64Array;
  private readonly gather: Pass;

  /** @param x the buffer whose samples are counted, block by block. */
  constructor(arena: Arena, x: Float64Array) {
    this.acc = arena.take(4);
    this.acc[0] = Infinity;
    this.acc[1] = -Infinity;
    this.gather = arena.kernels.extremesAndSums(x, this.acc);
  }

  /** Adds the first `count` samples of the buffer. */
  add(count: number): void {
    this.gather(0, count);
    this.count += count;
  }

  get min(): number {
    return this.acc[0] as number;
  }

  get max(): number {
    return this.acc[1] as number;
  }

  get mean(): number {
    return this.count > 0 ? (this.acc[2] as number) / this.count : 0;
  }

  get rms(): number {
    return this.count > 0 ? Math.sqrt((this.acc[3] as number) / this.count) : 0;
  }
}

/** How long a destination's drive voltage is outside what it responds to. */
export class DriveStats extends Stats {
  private readonly counts: Float64Array;
  private readonly outside: Pass;

  constructor(arena: Arena, x: Float64Array, low: number, high: number) {
    super(arena, x);
    this.counts = arena.take(3);
    this.outside = arena.kernels.countOutside(x, low, high, this.counts);
  }

  override add(count: number): void {
    super.add(count);
    this.outside(0, count);
  }

  /** Samples below the window. */
  get below(): number {
    return this.counts[0] as number;
  }

  get atOrBelow(): number {
    return this.counts[1] as number;
  }

  get above(): number {
    return this.counts[2] as number;
  }
}

/** Fewer samples than this may miss the extremes of what repeats. */
const FEWEST = 1000;

/** The first sample of the last whole period of a window, or of its second half where none fits. */
export function settleFrom(repeatsEvery: number | null, samples: number, sampleRate: number): number {
  const half = Math.floor(samples / 2);
  if (repeatsEvery === null) return half;
  const period = repeatsEvery * sampleRate;
  const whole = Math.round(period * Math.max(1, Math.ceil(FEWEST / period)));
  return whole <= samples ? samples - Math.max(1, whole) : half;
}

/** Extremes from one sample of the window on. */
export class Tail {
  private readonly acc: Float64Array;
  private readonly gather: Pass;

  constructor(
    arena: Arena,
    x: Float64Array,
    private readonly start: number,
  ) {
    this.acc = arena.take(2);
    this.acc[0] = Infinity;
    this.acc[1] = -Infinity;
    this.gather = arena.kernels.extremes(x, this.acc);
  }

  add(count: number, k0: number): void {
    const from = Math.max(0, this.start - k0);
    if (from < count) this.gather(from, count);
  }

  get range(): readonly [number, number] {
    return [this.acc[0] as number, this.acc[1] as number];
  }
}

/** What a gate input makes of its voltage. */
export class GateStats {
  rises = 0;
  /** Of those, from the sample on at which the last period of the window begins. */
  lastRises = 0;
  firstRise = -1;
  lastRise = -1;
  highSamples = 0;
  longestHigh = 0;
  high = false;
  private run = 0;

  /**
   * @param threshold rises at, volts. @param low falls below, volts.
   * @param start the first sample of what `lastRises` counts.
   */
  constructor(
    private readonly threshold: number,
    private readonly low: number,
    private readonly start: number,
  ) {}

  add(x: Float64Array, count: number, k0: number): void {
    const { threshold, low } = this;
    let { high, run, highSamples, longestHigh } = this;
    for (let i = 0; i < count; i++) {
      const v = x[i] as number;
      if (high && v < low) high = false;
      else if (!high && v >= threshold) {
        high = true;
        this.rise(k0 + i);
        run = 0;
      }
      if (!high) continue;
      highSamples++;
      run++;
      if (run > longestHigh) longestHigh = run;
    }
    this.high = high;
    this.run = run;
    this.highSamples = highSamples;
    this.longestHigh = longestHigh;
  }

  private rise(k: number): void {
    this.rises++;
    if (k >= this.start) this.lastRises++;
    if (this.firstRise < 0) this.firstRise = k;
    this.lastRise = k;
  }
}

/**
 * Pulses a second, by the rises of the last whole period: one at the very first sample counts only if the gate is down
 * at the end, so that it would rise again. Without a period by the time from the first rise to the last.
 *
 * @param every the period, seconds; null without one.
 */
export function pulsesOf(stats: GateStats, every: number | null, samples: number, sampleRate: number): number {
  const { rises, lastRises, firstRise, lastRise, high } = stats;
  if (every !== null) {
    const begins = settleFrom(every, samples, sampleRate);
    const already = begins === 0 && firstRise === 0 && high ? 1 : 0;
    const periods = Math.max(1, Math.round((samples - begins) / (every * sampleRate)));
    return (lastRises - already) / (periods * every);
  }
  return rises < 2 ? 0 : ((rises - 1) * sampleRate) / (lastRise - firstRise);
}

/**
 * The least and greatest voltage in each of a fixed number of columns, of the samples `from` to `to`: what a picture
 * needs, none lost between. Its reach is that of all samples.
 */
export class Picture {
  readonly min: Float32Array;
  readonly max: Float32Array;
  private readonly beside: [number, number] = [Infinity, -Infinity];

  private readonly gather: Pass;

  /** @param acc room for two numbers, of which nothing is kept. */
  constructor(
    arena: Arena,
    x: Float64Array,
    private readonly acc: Float64Array,
    private readonly columns: number,
    private readonly from: number,
    private readonly to: number,
  ) {
    this.min = new Float32Array(columns).fill(Infinity);
    this.max = new Float32Array(columns).fill(-Infinity);
    this.gather = arena.kernels.extremes(x, acc);
  }

  /** Extremes of the whole run. */
  get reach(): [number, number] {
    const low = this.min.reduce((a, b) => Math.min(a, b), this.beside[0]);
    return [low, this.max.reduce((a, b) => Math.max(a, b), this.beside[1])];
  }

  add(count: number, k0: number): void {
    const [first, last] = [Math.min(count, Math.max(0, this.from - k0)), Math.min(count, Math.max(0, this.to - k0))];
    this.pass(0, first);
    this.pass(last, count);
    const perColumn = (this.to - this.from) / this.columns;
    for (let i = first; i < last;) {
      const column = Math.min(this.columns - 1, Math.floor((k0 + i - this.from) / perColumn));
      const end = Math.min(last, Math.ceil((column + 1) * perColumn) + this.from - k0);
      const stop = column === this.columns - 1 ? last : Math.max(end, i + 1);
      [this.min[column], this.max[column]] = this.extremes(i, stop, this.min[column], this.max[column]);
      i = stop;
    }
  }

  private pass(from: number, to: number): void {
    if (from < to) [this.beside[0], this.beside[1]] = this.extremes(from, to, ...this.beside);
  }

  private extremes(from: number, to: number, low = Infinity, high = -Infinity): [number, number] {
    const { acc } = this;
    acc[0] = low;
    acc[1] = high;
    this.gather(from, to);
    return [acc[0], acc[1]];
  }
}
