import { sineOfTurn } from '../law/fastmath';
import type { Pass } from '../native/kernels';
import type { Wiring } from './kind';
import { EDGE, withinCycle } from './phase';
import { draw } from './random';

/** The waves of an LFO, by the phase. */

export const shapes = ['sine', 'triangle', 'rampUp', 'rampDown', 'pulse', 'stepped', 'smooth'] as const;
export type Shape = (typeof shapes)[number];

export const shapeNames: Readonly<Record<Shape, string>> = {
  sine: 'sine',
  triangle: 'triangle',
  rampUp: 'rising ramp',
  rampDown: 'falling ramp',
  pulse: 'pulse',
  stepped: 'stepped random',
  smooth: 'smooth random',
};

/** A buffer of counts of cycles, and one for the wave that is made of them. */
export interface WaveBuffers {
  readonly cycles: Float64Array;
  readonly out: Float64Array;
}

export interface Span {
  readonly mid: number;
  readonly half: number;
}

export const swingOf = (p: { readonly lowVolts: number; readonly highVolts: number }): Span => ({
  mid: (p.lowVolts + p.highVolts) / 2,
  half: (p.highVolts - p.lowVolts) / 2,
});

function drawnWave(
  smooth: boolean,
  seed: number,
  { mid, half }: Span,
  shift: number,
  { cycles, out }: WaveBuffers,
): Pass {
  let n = NaN;
  let [now, next] = [0, 0];
  return (from, to) => {
    for (let i = from; i < to; i++) {
      const at = (cycles[i] as number) + shift;
      const whole = Math.floor(at + EDGE);
      if (whole !== n) {
        n = whole;
        now = draw(seed, n);
        next = draw(seed, n + 1);
      }
      const share = smooth ? (1 - sineOfTurn(0.25 + withinCycle(at) / 2)) / 2 : 0;
      out[i] = mid + half * (now + (next - now) * share);
    }
  };
}

/** Fills `out` with `mid + half·w(φ)` at counts of cycles; draws are numbered by their cycle. */
export function waveOf(
  p: { readonly shape: Shape; readonly width: number },
  { kernels, seed }: Wiring,
  span: Span,
  shift: number,
  { cycles, out }: WaveBuffers,
): Pass {
  const swing = { ...span, shift };
  switch (p.shape) {
    case 'sine':
    case 'triangle':
      return kernels.wave(p.shape, cycles, swing, out);
    case 'rampUp':
      return kernels.wave('ramp', cycles, swing, out);
    case 'rampDown':
      return kernels.wave('ramp', cycles, { ...swing, half: -span.half }, out);
    case 'pulse':
      return kernels.square(cycles, p.width, swing, out);
    case 'stepped':
    case 'smooth':
      return drawnWave(p.shape === 'smooth', seed, span, shift, { cycles, out });
  }
}

/** The outputs beside the first, each another wave of the same phase, or the same wave further on. */
export const others = {
  quadrature: { shape: null, shift: 0.25 },
  sine: { shape: 'sine', shift: 0 },
  triangle: { shape: 'triangle', shift: 0 },
  ramp: { shape: 'rampUp', shift: 0 },
  pulse: { shape: 'pulse', shift: 0 },
} as const;
export type Other = keyof typeof others;
export const otherNames = Object.keys(others) as Other[];

/** Nearer than this to an edge of its wave nothing is said of where a phase stands. */
const NEAR_EDGE = 1e-6;

/** The unit wave at a phase; null for a draw, and where an edge is too near to tell. */
export function unitWave(shape: Shape, width: number, phase: number): number | null {
  const at = phase - Math.floor(phase);
  const onEdge = (edge: number): boolean => Math.abs(at - edge) < NEAR_EDGE || Math.abs(at - edge) > 1 - NEAR_EDGE;
  switch (shape) {
    case 'sine':
      return sineOfTurn(at);
    case 'triangle':
      return at < 0.25 ? 4 * at : at < 0.75 ? 2 - 4 * at : 4 * at - 4;
    case 'rampUp':
    case 'rampDown':
      if (at !== 0 && onEdge(0)) return null;
      return (shape === 'rampUp' ? 1 : -1) * (2 * at - 1);
    case 'pulse':
      if ((at !== 0 && onEdge(0)) || onEdge(width)) return null;
      return at < width ? 1 : -1;
    default:
      return null;
  }
}
