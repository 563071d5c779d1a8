import type { Kernels } from '../native/kernels';

/** A phase this close to an edge is on it: sums of decimals must not move an edge by a sample. Cycles. */
export const EDGE = 1e-9;

/**
 * A running phase in cycles. While the frequency does not change it is computed from the sample's number, not
 * accumulated, so that it does not drift; a change starts a new stretch.
 */
export class Phase {
  private from = 0;
  private base: number;
  private hertz = 0;
  /** Whole cycles before the present stretch; a reset begins a new one. */
  private cycles = 0;

  constructor(
    private readonly sampleRate: number,
    start: number,
  ) {
    this.base = start;
  }

  /** Cycles at sample `k`, whole ones included, running on at `hertz`. */
  at(k: number, hertz: number): number {
    if (hertz !== this.hertz) {
      const now = this.base + (this.hertz * (k - this.from)) / this.sampleRate;
      const whole = Math.floor(now + EDGE);
      this.cycles += whole;
      this.base = now - whole;
      this.from = k;
      this.hertz = hertz;
    }
    return this.cycles + this.base + (hertz * (k - this.from)) / this.sampleRate;
  }

  /** The same for samples in a row, into a buffer, at a frequency that stays. */
  filling(kernels: Kernels, cycles: Float64Array): (from: number, to: number, k0: number, hertz: number) => void {
    const fill = kernels.phases(cycles, this.sampleRate);
    return (from, to, k0, hertz) => {
      this.at(k0 + from, hertz);
      fill(from, to, this.cycles + this.base, hertz, k0 - this.from + from);
    };
  }

  /**
   * Phases within their cycle, at frequencies that move.
   *
   * @param state room for three numbers.
   */
  sweeping(
    kernels: Kernels,
    hertz: Float64Array,
    state: Float64Array,
    phases: Float64Array,
  ): (from: number, to: number, k0: number) => void {
    const sweep = kernels.sweep(hertz, this.sampleRate, state, phases);
    return (from, to, k0) => {
      [state[0], state[1], state[2]] = [this.base, this.from, this.hertz];
      sweep(from, to, k0 + from);
      [this.base, this.from, this.hertz] = [state[0] as number, state[1] as number, state[2] as number];
    };
  }

  reset(k: number, phase: number, hertz: number): number {
    const now = this.at(k, hertz);
    this.cycles = Math.floor(now + EDGE) + 1;
    this.base = phase;
    this.from = k;
    return this.cycles + phase;
  }
}

/** The part of a cycle count within its cycle, 0 up to below 1. */
export function withinCycle(cycles: number): number {
  return Math.max(0, cycles - Math.floor(cycles + EDGE));
}
