/**
 * Sine, tangent and powers of two to 1e-14 or better, by small tables and short polynomials that compilers can keep
 * in line (Tang, "Table-driven implementation of the exponential function", ACM TOMS 1989). A simulation asks for
 * millions of them.
 */

const PARTS = 64;
const LOG_PARTS = 6;
const OFFSET = 131_072;
const PART = 1 / PARTS;
const LN2 = Math.LN2;

const fractions = Float64Array.from({ length: PARTS }, (_, i) => 2 ** (i / PARTS));
const LEAST_EXPONENT = -1074;
const powers = Float64Array.from({ length: 2099 }, (_, i) => 2 ** (i + LEAST_EXPONENT));

/** `2^x`; 0 far below, Infinity far above. */
export function exp2(x: number): number {
  if (x !== x || x > 1023.9 || x < -1073) return 2 ** x;
  // Cutting a positive number to a whole one is a single instruction; rounding down is not.
  const m = ((x * PARTS + OFFSET + 0.5) | 0) - OFFSET;
  const r = (x - m * PART) * LN2;
  const p = 1 + r * (1 + r * (0.5 + r * (1 / 6 + r * (1 / 24 + r * (1 / 120)))));
  return (powers[(m >> LOG_PARTS) - LEAST_EXPONENT] as number) * (fractions[m & (PARTS - 1)] as number) * p;
}

/** `e^x`. */
export const exp = (x: number): number => exp2(x * Math.LOG2E);

const TURN = 2 * Math.PI;
const sines = Float64Array.from({ length: PARTS + 1 }, (_, i) => exactSine(i));
const cosines = Float64Array.from({ length: PARTS + 1 }, (_, i) => exactSine(i + PARTS / 4));

/** The table's quarter turns are exact: 0, 1 and −1. */
function exactSine(part: number): number {
  const i = part % PARTS;
  if (i % (PARTS / 2) === 0) return 0;
  if (i % (PARTS / 4) === 0) return i < PARTS / 2 ? 1 : -1;
  return Math.sin((TURN * i) / PARTS);
}

const smallSine = (b: number, q: number): number => b * (1 - q * (1 / 6 - q * (1 / 120 - q * (1 / 5040))));
const smallCosine = (q: number): number => 1 - q * (0.5 - q * (1 / 24 - q * (1 / 720)));

/** `sin(2π·phase)` for a phase in 0..1. */
export function sineOfTurn(phase: number): number {
  const i = (phase * PARTS + 0.5) | 0;
  const b = (phase - i * PART) * TURN;
  const q = b * b;
  return (sines[i] as number) * smallCosine(q) + (cosines[i] as number) * smallSine(b, q);
}

/** `tan(2π·phase)` for a phase from 0 up to below a quarter. */
export function tangentOfTurn(phase: number): number {
  const i = (phase * PARTS + 0.5) | 0;
  const b = (phase - i * PART) * TURN;
  const q = b * b;
  const s = smallSine(b, q);
  const c = smallCosine(q);
  const sa = sines[i] as number;
  const ca = cosines[i] as number;
  return (sa * c + ca * s) / (ca * c - sa * s);
}
