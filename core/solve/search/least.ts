import { Matrix, QrDecomposition } from 'ml-matrix';

/** Columns of a Jacobian, one a knob, each as long as the residual. */
export type Columns = readonly Float64Array[];

const dot = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let sum = 0;
  const n = Math.min(a.length, b.length);
  for (let i = 0; i < n; i++) sum += (a[i] as number) * (b[i] as number);
  return sum;
};

/** The residual after a step: `r + J·d`. */
function stepped(j: Columns, r: ArrayLike<number>, d: ArrayLike<number>): Float64Array {
  const after = Float64Array.from(r);
  j.forEach((column, i) => {
    const by = d[i] as number;
    if (by !== 0) for (let k = 0; k < after.length; k++) after[k] = (after[k] as number) + by * (column[k] ?? 0);
  });
  return after;
}

/**
 * The step of some unknowns, the others staying where they are, with the least `|r + J·d|² + |D·d|²`, by QR of the
 * residuals with the damping's rows below them.
 */
function damped(
  j: Columns,
  r: Float64Array,
  d: Float64Array,
  open: readonly number[],
  damp: readonly number[],
): number[] {
  const fixed = d.map((v, i) => (open.includes(i) ? 0 : v));
  const rest = stepped(j, r, fixed);
  const [rows, n] = [r.length + open.length, open.length];
  const a = Matrix.zeros(rows, n);
  const b = Matrix.zeros(rows, 1);
  for (let k = 0; k < r.length; k++) b.set(k, 0, -(rest[k] as number));
  open.forEach((i, c) => {
    const column = j[i] as Float64Array;
    for (let k = 0; k < r.length; k++) a.set(k, c, column[k] ?? 0);
    a.set(r.length + c, c, damp[i] as number);
  });
  const qr = new QrDecomposition(a);
  return qr.isFullRank() ? qr.solve(b).to1DArray() : new Array<number>(n).fill(0);
}

/** Where a column is nothing at all, a damping of this keeps the system of full rank. */
const LEAST_DAMP = 1e-150;

/**
 * The step `d` within `low..high` with the least `|r + J·d|² + damping·Σ scale·d²`: bounded least squares by an active
 * set (Lawson and Hanson, "Solving Least Squares Problems", ch. 23), damped as Marquardt does (1963).
 *
 * @param scale one for each unknown, squared lengths; left out: all 1.
 */
export function boundedStep(
  j: Columns,
  r: Float64Array,
  low: readonly number[],
  high: readonly number[],
  damping: number,
  scale?: readonly number[],
): Float64Array {
  const n = j.length;
  const damp = j.map((_, i) => Math.max(LEAST_DAMP, Math.sqrt(damping * (scale?.[i] ?? 1))));
  const d = new Float64Array(n);
  const fixed = new Array<number>(n).fill(0);
  for (let round = 0; round < 4 * n + 4; round++) {
    const open = [...fixed.keys()].filter((i) => fixed[i] === 0);
    const wanted = open.length > 0 ? damped(j, r, d, open, damp) : [];
    // As far as the first limit; the knob that meets it stays there.
    let [share, meets, side] = [1, -1, 0];
    open.forEach((i, o) => {
      const [from, to] = [d[i] as number, wanted[o] as number];
      const limit = to > (high[i] as number) ? (high[i] as number) : to < (low[i] as number) ? (low[i] as number) : to;
      if (limit === to) return;
      const part = to === from ? 0 : Math.max(0, (limit - from) / (to - from));
      if (part < share || meets < 0) [share, meets, side] = [Math.min(share, part), i, limit === high[i] ? 1 : -1];
    });
    open.forEach((i, o) => (d[i] = (d[i] as number) + share * ((wanted[o] as number) - (d[i] as number))));
    if (meets >= 0) {
      d[meets] = (side > 0 ? high : low)[meets] as number;
      fixed[meets] = side;
      continue;
    }
    const loose = released(j, r, d, fixed, damp);
    if (loose < 0) break;
    fixed[loose] = 0;
  }
  return d;
}

/** The knob at its limit that lies furthest outside it, or −1. */
function released(
  j: Columns,
  r: Float64Array,
  d: Float64Array,
  fixed: readonly number[],
  damp: readonly number[],
): number {
  if (fixed.every((side) => side === 0)) return -1;
  const rest = stepped(j, r, d);
  let [best, most] = [-1, 1e-12];
  fixed.forEach((side, i) => {
    if (side === 0) return;
    const inward = side * (dot(j[i] as Float64Array, rest) + (damp[i] as number) ** 2 * (d[i] as number));
    if (inward > most) [best, most] = [i, inward];
  });
  return best;
}

export interface Descent {
  readonly x: Float64Array;
  readonly cost: number;
  /** The Jacobian at the last step. */
  readonly looks: number;
}

export interface DescentOptions {
  /** Which of the unknowns may move. */
  readonly free: readonly number[];
  readonly low: number;
  readonly high: number;
  /** For differences, in units of x. */
  readonly step: number;
  /** Rounds, at most. */
  readonly rounds: number;
  /** Good enough. */
  readonly enough: number;
  /** Ends it where it is. */
  readonly isSpent?: () => boolean;
}

const costOf = (r: ArrayLike<number>): number => dot(r, r);

function jacobian(
  f: (x: Float64Array) => Float64Array,
  x: Float64Array,
  r: Float64Array,
  o: DescentOptions,
): Float64Array[] {
  return o.free.map((i) => {
    const from = x[i] as number;
    const h = from + o.step <= o.high ? o.step : -o.step;
    const moved = Float64Array.from(x);
    moved[i] = from + h;
    const there = f(moved);
    const long = Math.max(there.length, r.length);
    return Float64Array.from({ length: long }, (_, k) => ((there[k] ?? 0) - (r[k] ?? 0)) / h);
  });
}

/** A step that promises less than this share of what is missing is not worth a look (MINPACK's `ftol`). */
const PROMISE = 1e-9;

/** The greatest damping that is tried in one round, and how it moves. */
const TRIES = 8;
const FIRST_DAMPING = 1e-12;

/**
 * Levenberg and Marquardt's least squares within limits, from a start: linear ones are exact after two rounds. Each
 * unknown is damped by the greatest length that its column has had (Moré, "The Levenberg-Marquardt algorithm", 1978).
 *
 * @param f the residual; what it has more of at other places counts as 0 before.
 */
export function descend(f: (x: Float64Array) => Float64Array, start: Float64Array, o: DescentOptions): Descent {
  let x = start;
  let r = f(x);
  let cost = costOf(r);
  let looks = 1;
  let damping = FIRST_DAMPING;
  const scale = o.free.map(() => 0);
  for (let round = 0; round < o.rounds && cost > o.enough && !(o.isSpent?.() ?? false); round++) {
    const j = jacobian(f, x, r, o);
    looks += o.free.length;
    const [before, long] = [cost, Math.max(0, ...j.map((c) => c.length))];
    const whole = r.length === long ? r : Float64Array.from({ length: long }, (_, k) => r[k] ?? 0);
    j.forEach((c, i) => (scale[i] = Math.max(scale[i] as number, dot(c, c))));
    const least = 1e-6 * Math.max(1e-12, ...scale);
    for (let tries = 0; tries < TRIES; tries++) {
      const low = o.free.map((i) => o.low - (x[i] as number));
      const high = o.free.map((i) => o.high - (x[i] as number));
      const lengths = scale.map((s) => Math.max(least, s));
      const d = boundedStep(j, whole, low, high, damping, lengths);
      if (costOf(stepped(j, whole, d)) > cost * (1 - PROMISE)) return { x, cost, looks };
      const next = Float64Array.from(x);
      o.free.forEach((i, k) => (next[i] = Math.min(o.high, Math.max(o.low, (x[i] as number) + (d[k] as number)))));
      const there = f(next);
      looks++;
      const reached = costOf(there);
      if (reached < cost) {
        [x, r, cost] = [next, there, reached];
        damping = Math.max(FIRST_DAMPING, damping / 100);
        break;
      }
      damping = Math.max(1e-6, damping * 100);
    }
    // What hardly gets better does not get there: a way to nothing halves what is missing, at least.
    if (cost > before * (round < 3 ? 1 - 1e-9 : 0.98)) break;
  }
  return { x, cost, looks };
}
