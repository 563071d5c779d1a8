import type { Range } from '../law/affine';
import type { GateState, Sockets, Wiring } from './kind';

/** Falls this far below the threshold before a gate counts as low again, volts. */
export const GATE_HYSTERESIS = 0.1;

/** A gate input: rises at `v >= threshold`, falls at `v < threshold - 0.1`; starts low. */
export class Gate {
  high = false;
  /** @param threshold volts; may be moved. */
  constructor(public threshold: number) {}

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

/** A gate that outlasts its kernel, at the threshold of now. */
export function keptGate(wiring: Pick<Wiring, 'keep'>, name: string, threshold: number): Gate {
  const gate = wiring.keep(name, () => new Gate(threshold));
  gate.threshold = threshold;
  return gate;
}

/** Bounds and samples may differ by this much in their last digits, volts. */
export const ROUNDING = 1e-9;

/** What a detector of a voltage against a level can ever do; a constant that meets it is high, as the samples are. */
export function fateOf([lo, hi]: Range, level: number): GateState {
  const slack = lo === hi && lo === level ? 0 : ROUNDING * Math.max(1, Math.abs(lo), Math.abs(hi));
  if (hi < level - slack) return 'low';
  return lo >= level + slack ? 'high' : 'moves';
}

export const gateStateOf = (io: Sockets, name: string, threshold: number): GateState =>
  fateOf(io.range(io.in(name)), threshold);

/** Whether a gate that has risen can ever fall. */
export function fallsEver(io: Sockets, name: string, threshold: number): boolean {
  const [lo] = io.range(io.in(name));
  return lo < threshold - GATE_HYSTERESIS + ROUNDING;
}
