import type { TargetShape } from '../../document/targets';
import { Gate } from '../../kinds/detect';
import type { Range } from '../../law/affine';

type Trace = Float64Array;

export const SHAPES: Readonly<Record<TargetShape, (phase: number) => number>> = {
  triangle: (p) => (p < 0.25 ? 4 * p : p < 0.75 ? 2 - 4 * p : 4 * p - 4),
  sine: (p) => Math.sin(2 * Math.PI * p),
  ramp: (p) => 2 * p - 1,
  square: (p) => (p < 0.5 ? 1 : -1),
};

/** How well a shape of one period explains a trace at a phase: its share of what moves, 0..1. */
function likeness(trace: Trace, shape: (phase: number) => number, cycles: number, phase: number): number {
  const n = trace.length;
  let [sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0];
  for (let k = 0; k < n; k++) {
    const turn = (cycles * k) / n + phase;
    const x = shape(turn - Math.floor(turn));
    const y = trace[k] as number;
    sx += x;
    sy += y;
    sxx += x * x;
    syy += y * y;
    sxy += x * y;
  }
  const [vx, vy] = [sxx - (sx * sx) / n, syy - (sy * sy) / n];
  const cov = sxy - (sx * sy) / n;
  return vx <= 0 || vy <= 0 ? 0 : (cov * cov) / (vx * vy);
}

/** The most points of a period that are compared. */
const POINTS = 1024;

export function thinned(trace: Trace): Trace {
  if (trace.length <= POINTS) return trace;
  return Float64Array.from({ length: POINTS }, (_, i) => trace[Math.floor((i * trace.length) / POINTS)] as number);
}

/** How often a trace crosses its middle upward: the periods that it holds, at least one. */
export function cyclesIn(trace: Trace, [lo, hi]: Range): number {
  const middle = (lo + hi) / 2;
  const gate = new Gate(0);
  const scale = (hi - lo) * 0.2 || 1;
  // Once round without counting: where a period begins is no crossing.
  for (const v of trace) gate.rises((v - middle) / scale);
  let rises = 0;
  for (const v of trace) if (gate.rises((v - middle) / scale)) rises++;
  return Math.max(1, rises);
}

/** Phases that are tried before the best is narrowed. */
const TRIES = 64;

/** How much of what moves in a trace the best scale, shift and phase of a shape explain, 0..1. */
export function likenessOf(trace: Trace, shape: (phase: number) => number, cycles: number): number {
  let [best, at] = [0, 0];
  for (let i = 0; i < TRIES; i++) {
    const found = likeness(trace, shape, cycles, i / TRIES);
    if (found > best) [best, at] = [found, i / TRIES];
  }
  for (let h = 1 / TRIES; h > 1e-5; h /= 2)
    for (const phase of [at - h / 2, at + h / 2]) {
      const found = likeness(trace, shape, cycles, phase);
      if (found > best) [best, at] = [found, phase];
    }
  return best;
}
