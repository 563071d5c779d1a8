/** Falls this far below the threshold before a gate counts as low again, volts. */
export const GATE_HYSTERESIS = 0.1;

/** A gate input: rises at `v >= threshold`, falls at `v < threshold - 0.1`; starts low. */
export class Gate {
  high = false;
  constructor(private readonly threshold: number) {}

  /** True at the sample of a rising edge. */
  rises(v: number): boolean {
    if (this.high) {
      if (v < this.threshold - GATE_HYSTERESIS) this.high = false;
      return false;
    }
    if (v < this.threshold) return false;
    this.high = true;
    return true;
  }
}
