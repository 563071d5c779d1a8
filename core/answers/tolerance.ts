import { BoundsEngine } from '../bounds/bounds';
import type { ModuleBounds } from '../bounds/bounds';
import type { Patch } from '../document/types';
import type { Graph } from '../graph/graph';
import { CONTROL_RATE } from '../graph/rate';
import { controlRate, partBehind, upstreamOf } from '../graph/upstream';
import type { ChannelLimits } from '../rack/limits';
import { stream } from '../kinds/random';
import type { Range } from '../law/affine';
import { ErrorModel } from './errors';
import type { ErrorOptions } from './errors';
import { memoryIn } from '../bounds/repeats';
import { upstreamAt } from '../simulate/arrival';
import type { ArrivesBy } from '../simulate/arrival';
import { simulateGraph, workOf } from '../simulate/simulate';
import type { Simulation } from '../simulate/types';
import { readingsOf } from './readings';
import type { Reading } from './readings';
import { socketAt } from '../document/sockets';
import { handLimitedOf, sharesOf } from './shares';
import type { HandLimited, Share } from './shares';

export interface ToleranceOptions extends ErrorOptions {
  /** At least 500. */
  readonly draws?: number;
  /** Fewer draws suffice where figures are compared, not shown. */
  readonly rough?: boolean;
  /** Looks only at what these sockets depend on; their readings and those on the way. */
  readonly only?: readonly string[];
  /** What the channels that the patch sits on have: a knob that most modules lack is off only where there is one. */
  readonly channels?: Pick<ChannelLimits, 'limits'>;
  /** Leaves out each knob's share. */
  readonly plain?: boolean;
  /** Only the voltages of the sockets in `only`: no readings, and nothing on the way. */
  readonly voltsOnly?: boolean;
  /** Of readings too the guaranteed range, where what arrives would be run. */
  readonly bounded?: boolean;
  /** Called now and then with the progress, 0..1. */
  readonly progress?: (share: number) => void;
}

export interface Tolerance {
  /** The 5 to 95% range of the guaranteed least voltage, and of the greatest. */
  readonly min: Range;
  readonly max: Range;
}

export interface ToleranceReport {
  readonly draws: number;
  readonly outputs: Readonly<Record<string, Tolerance>>;
  /** The 5 to 95% range of each reading's guaranteed low and high, in its own unit and in volts; silence is left out. */
  readonly readings: readonly ReadingTolerance[];
  /** How much of a reading's spread each knob makes. */
  readonly shares: readonly Share[];
  /** Knobs that a hand sets too coarsely for what is wanted. */
  readonly handLimited: readonly HandLimited[];
}

export interface ReadingTolerance {
  readonly at: string;
  readonly quantity: string;
  readonly unit: string;
  /** What its figures are of: what arrives, or where that would take too long the guaranteed range. */
  readonly by: ArrivesBy;
  readonly low: Range;
  readonly high: Range;
  readonly lowVolts: Range;
  readonly highVolts: Range;
  /** The draws themselves as a histogram of each end, for a chart. */
  readonly bins: { readonly low: Bins; readonly high: Bins };
}

/** How many draws fell into each of some even parts of a range. */
export interface Bins {
  readonly from: number;
  readonly to: number;
  readonly counts: readonly number[];
}

export const LEAST_DRAWS = 500;
const BINS = 24;

/** The 5 and the 95% quantile. */
function quantiles(list: ArrayLike<number>): Range {
  const sorted = Float64Array.from(list).sort();
  const at = (share: number): number => sorted[Math.round(share * (sorted.length - 1))] as number;
  return [at(0.05), at(0.95)];
}

function binsOf(list: readonly number[]): Bins {
  let [from, to] = [Infinity, -Infinity];
  for (const v of list) [from, to] = [Math.min(from, v), Math.max(to, v)];
  const counts = new Array<number>(BINS).fill(0);
  for (const v of list) {
    const i = to > from ? Math.min(BINS - 1, Math.floor(((v - from) / (to - from)) * BINS)) : 0;
    counts[i] = (counts[i] as number) + 1;
  }
  return { from, to, counts };
}

interface ReadingDraws {
  readonly of: Reading;
  readonly lows: number[];
  readonly highs: number[];
  readonly lowVolts: number[];
  readonly highVolts: number[];
}

/** Keeps a draw's figures; what has none without a simulation, or is silent, has no spread. */
function note(read: Map<string, ReadingDraws>, reading: Reading): void {
  const { at, quantity, arrivesLow: low, arrivesHigh: high, arrivesVolts: driveVolts } = reading;
  if (low === null || high === null || quantity === 'pulses') return;
  const key = `${at} ${quantity}`;
  const known = read.get(key) ?? { of: reading, lows: [], highs: [], lowVolts: [], highVolts: [] };
  known.lows.push(low);
  known.highs.push(high);
  known.lowVolts.push(driveVolts[0]);
  known.highVolts.push(driveVolts[1]);
  read.set(key, known);
}

const spread = ({
  of: { at, quantity, unit, arrivesBy },
  lows,
  highs,
  lowVolts,
  highVolts,
}: ReadingDraws): ReadingTolerance => ({
  at,
  quantity,
  unit,
  by: arrivesBy,
  low: quantiles(lows),
  high: quantiles(highs),
  lowVolts: quantiles(lowVolts),
  highVolts: quantiles(highVolts),
  bins: { low: binsOf(lows), high: binsOf(highs) },
});

type Bounds = ReadonlyMap<string, ModuleBounds>;

/** Modules times samples that all draws together may run. */
const MOST_WORK = 1e9;
/** The slowest that slow voltages are run for their spread, samples a second. */
const LEAST_RATE = 500;

/**
 * What runs a draw for the readings behind something that remembers, as slowly as slow voltages allow.
 *
 * @returns null where there are none, or where the draws together would take too long.
 */
function arrivingRun(graph: Graph, draws: number): ((drawn: Graph, bounds: Bounds) => Simulation) | null {
  const known = memoryIn(graph);
  const sockets = graph.modules.flatMap((m) =>
    (m.kind.ends ?? [])
      .filter((e) => e.quantity !== 'level' && upstreamAt(graph, m, e.sockets, known).memory)
      .flatMap((e) => e.sockets.map((name) => socketAt(m.id, name))),
  );
  if (sockets.length === 0) return null;
  const running = new Set(upstreamOf(graph, sockets).graph.groups.flatMap((g) => g.modules));
  const slow = controlRate(graph, sockets) !== null;
  const rates = slow ? [CONTROL_RATE, CONTROL_RATE / 4, LEAST_RATE] : [graph.sampleRate];
  const rate = rates.find((r) => draws * workOf({ ...graph, sampleRate: r }, (i) => running.has(i)) <= MOST_WORK);
  if (rate === undefined) return null;
  return (drawn, bounds) => simulateGraph({ ...drawn, sampleRate: rate }, { only: sockets, bounds });
}

/**
 * What knobs, gains and offsets that are a little off do to every output and reading: the 5 to 95% range of the
 * extremes, over seeded draws: of outputs the guaranteed ones, of readings those that arrive. Every knob is off by a normal error of 1% of its travel, every output's gain
 * by 0.5% and its offset by 5 mV, unless told; all and by module.
 */
export function tolerance(patch: Patch, options: ToleranceOptions = {}): ToleranceReport {
  const draws = Math.max(options.rough ? 1 : LEAST_DRAWS, options.draws ?? LEAST_DRAWS);
  const random = stream(patch.settings.seed ^ 0x5eed);
  const { only, progress } = options;
  const part = only && ((graph: Graph) => partBehind(graph, only));
  const bench = new ErrorModel(patch, options, part, options.channels);
  const looked = new Set(bench.graph.groups.flatMap((g) => g.modules));
  const onTheWay = bench.graph.modules
    .filter((m) => looked.has(m.index))
    .flatMap((m) => m.outputs.map((o) => o.socket));
  const sockets = options.voltsOnly && only ? onTheWay.filter((s) => only.includes(s)) : onTheWay;
  const read = new Map<string, ReadingDraws>();
  const least = new Map(sockets.map((s) => [s, new Float64Array(draws)]));
  const most = new Map(sockets.map((s) => [s, new Float64Array(draws)]));
  const arriving = options.voltsOnly || options.bounded ? null : arrivingRun(bench.graph, draws);
  for (let n = 0; n < draws; n++) {
    const graph = bench.drawn(random);
    const bounds = new BoundsEngine().run(graph);
    const simulation = arriving?.(graph, bounds) ?? null;
    for (const m of graph.modules) {
      const ranges = bounds.get(m.id)?.outputs;
      if (!ranges) continue;
      m.outputs.forEach((o, i) => {
        const [lo, hi] = ranges[i] ?? [0, 0];
        const lows = least.get(o.socket);
        const highs = most.get(o.socket);
        if (lows) lows[n] = lo;
        if (highs) highs[n] = hi;
      });
    }
    if (!options.voltsOnly) for (const reading of readingsOf(graph, bounds, simulation)) note(read, reading);
    if (n % 50 === 49) progress?.(n / draws);
  }
  const entries = sockets.map((s) => {
    return [s, { min: quantiles(least.get(s) as Float64Array), max: quantiles(most.get(s) as Float64Array) }] as const;
  });
  const { plain = false } = options;
  return {
    draws,
    outputs: Object.fromEntries(entries),
    readings: [...read.values()].map(spread),
    shares: plain ? [] : sharesOf(bench),
    handLimited: plain ? [] : handLimitedOf(patch, bench),
  };
}
