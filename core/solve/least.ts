/** Solves the square system `a·x = b` by elimination with pivots; rows are changed in place. A zero pivot gives 0. */
function eliminate(a: Float64Array[], b: Float64Array): Float64Array {
  const n = b.length;
  for (let c = 0; c < n; c++) {
    let p = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(at(a, r, c)) > Math.abs(at(a, p, c))) p = r;
    [a[c], a[p]] = [a[p] as Float64Array, a[c] as Float64Array];
    [b[c], b[p]] = [b[p] as number, b[c] as number];
    if (at(a, c, c) === 0) continue;
    for (let r = c + 1; r < n; r++) {
      const k = at(a, r, c) / at(a, c, c);
      if (k === 0) continue;
      for (let j = c; j < n; j++) (a[r] as Float64Array)[j] = at(a, r, j) - k * at(a, c, j);
      b[r] = (b[r] as number) - k * (b[c] as number);
    }
  }
  const x = new Float64Array(n);
  for (let r = n - 1; r >= 0; r--) {
    let sum = b[r] as number;
    for (let j = r + 1; j < n; j++) sum -= at(a, r, j) * (x[j] as number);
    x[r] = at(a, r, r) === 0 ? 0 : sum / at(a, r, r);
  }
  return x;
}

const at = (a: readonly Float64Array[], r: number, c: number): number => (a[r] as Float64Array)[c] as number;

/** Columns of a Jacobian, one a knob, each as long as the residual. */
export type Columns = readonly Float64Array[];

const dot = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let sum = 0;
  const n = Math.min(a.length, b.length);
  for (let i = 0; i < n; i++) sum += (a[i] as number) * (b[i] as number);
  return sum;
};

/**
 * The step `d` within `low..high` with the least `|r + J·d|² + damping·|d|²`: bounded least squares by an active set
 * (Lawson and Hanson, "Solving Least Squares Problems", ch. 23). A linear programme would minimise another measure of
 * what is missing than the one asked for here, and these are a dozen unknowns at most.
 */
export function boundedStep(
  j: Columns,
  r: Float64Array,
  low: readonly number[],
  high: readonly number[],
  damping: number,
): Float64Array {
  const n = j.length;
  const gram = j.map((a) => Float64Array.from(j, (b) => dot(a, b)));
  const pull = Float64Array.from(j, (a) => -dot(a, r));
  const d = new Float64Array(n);
  const fixed = new Array<number>(n).fill(0);
  for (let round = 0; round < 4 * n + 4; round++) {
    const open = [...fixed.keys()].filter((i) => fixed[i] === 0);
    const a = open.map((i) => Float64Array.from(open, (k) => at(gram, i, k) + (i === k ? damping : 0)));
    const b = Float64Array.from(open, (i) => {
      let sum = pull[i] as number;
      for (let k = 0; k < n; k++) if (fixed[k] !== 0) sum -= at(gram, i, k) * (d[k] as number);
      return sum;
    });
    const wanted = eliminate(a, b);
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
    const loose = released(gram, pull, d, fixed, damping);
    if (loose < 0) break;
    fixed[loose] = 0;
  }
  return d;
}

/** The knob at its limit that wants back inside most, or −1. */
function released(
  gram: readonly Float64Array[],
  pull: Float64Array,
  d: Float64Array,
  fixed: readonly number[],
  damping: number,
): number {
  let [best, most] = [-1, 1e-12];
  fixed.forEach((side, i) => {
    if (side === 0) return;
    const inward = -side * ((pull[i] as number) - dot(gram[i] as Float64Array, d) - damping * (d[i] as number));
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

/**
 * Levenberg and Marquardt's least squares within limits, from a start: linear ones are exact after two rounds.
 *
 * @param f the residual; what it has more of at other places counts as 0 before.
 */
export function descend(f: (x: Float64Array) => Float64Array, start: Float64Array, o: DescentOptions): Descent {
  let x = start;
  let r = f(x);
  let cost = costOf(r);
  let looks = 1;
  let damping = 1e-12;
  for (let round = 0; round < o.rounds && cost > o.enough; round++) {
    const j = jacobian(f, x, r, o);
    looks += o.free.length;
    const [before, long] = [cost, Math.max(0, ...j.map((c) => c.length))];
    const whole = r.length === long ? r : Float64Array.from({ length: long }, (_, k) => r[k] ?? 0);
    const scale = Math.max(1e-12, ...j.map((c) => dot(c, c)));
    for (let tries = 0; tries < 8; tries++) {
      const low = o.free.map((i) => o.low - (x[i] as number));
      const high = o.free.map((i) => o.high - (x[i] as number));
      const d = boundedStep(j, whole, low, high, damping * scale);
      const next = Float64Array.from(x);
      o.free.forEach((i, k) => (next[i] = Math.min(o.high, Math.max(o.low, (x[i] as number) + (d[k] as number)))));
      const there = f(next);
      looks++;
      const reached = costOf(there);
      if (reached < cost) {
        [x, r, cost] = [next, there, reached];
        damping = Math.max(1e-12, damping / 100);
        break;
      }
      damping = Math.max(1e-6, damping * 100);
    }
    // What hardly gets better does not get there: a way to nothing halves what is missing, at least.
    if (cost > before * (round < 3 ? 1 - 1e-9 : 0.98)) break;
  }
  return { x, cost, looks };
}
