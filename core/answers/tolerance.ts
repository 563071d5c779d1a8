import { BoundsEngine } from '../bounds/bounds';
import { completeParams } from '../document/params';
import type { ModuleDoc, Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { kindNamed } from '../kinds';
import { knobsOf } from '../kinds/knobs';
import { stream } from '../kinds/random';
import type { Range } from '../law/lin';
import { readingsOf } from './readings';
import type { Reading } from './readings';
import { positionOf, valueAt } from '../units/knob';

export interface ToleranceOptions {
  /** One sigma of a knob's error, as a share of its travel. */
  readonly knob?: number;
  /** One sigma of an output's gain error. */
  readonly gain?: number;
  /** At least 500. */
  readonly draws?: number;
}

export interface Tolerance {
  /** The 5 to 95 % range of the guaranteed least voltage, and of the greatest. */
  readonly min: Range;
  readonly max: Range;
}

export interface ToleranceReport {
  readonly draws: number;
  readonly outputs: Readonly<Record<string, Tolerance>>;
  /** The 5 to 95 % range of each reading's guaranteed low and high, in its own unit; silence is left out. */
  readonly readings: readonly ReadingTolerance[];
}

export interface ReadingTolerance {
  readonly at: string;
  readonly quantity: string;
  readonly unit: string;
  readonly low: Range;
  readonly high: Range;
}

const LEAST_DRAWS = 500;

/** A standard normal draw (Box and Muller 1958). */
const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random() * 0.999999)) * Math.cos(2 * Math.PI * random());

function mistuned(m: ModuleDoc, bpm: number, sigma: number, random: () => number): ModuleDoc {
  const kind = kindNamed(m.kind);
  if (!kind) return m;
  const params = completeParams(kind, m.params, bpm);
  const off = knobsOf(kind, params).map(({ name, spec, min, max }) => {
    const travel = { min, max, taper: spec.taper };
    const position = positionOf(travel, Number(params[name])) + sigma * normal(random);
    return [name, valueAt(travel, position)] as const;
  });
  return { ...m, params: { ...m.params, ...Object.fromEntries(off) } };
}

/** The same graph with every output's gain a little off. */
function misscaled(graph: Graph, sigma: number, random: () => number): Graph {
  const modules = graph.modules.map((m) => ({
    ...m,
    outputs: m.outputs.map((o) => ({ ...o, gain: 1 + sigma * normal(random) })),
  }));
  return { ...graph, modules };
}

/** The 5 and the 95 % quantile. */
function quantiles(list: ArrayLike<number>): Range {
  const sorted = Float64Array.from(list).sort();
  const at = (share: number): number => sorted[Math.round(share * (sorted.length - 1))] as number;
  return [at(0.05), at(0.95)];
}

interface ReadingDraws {
  readonly of: Reading;
  readonly lows: number[];
  readonly highs: number[];
}

/** Keeps a draw's figures; what has none without a simulation, or is silent, has no spread. */
function note(read: Map<string, ReadingDraws>, reading: Reading): void {
  const { at, quantity, low, high } = reading;
  if (low === null || high === null || quantity === 'pulses') return;
  const key = `${at} ${quantity}`;
  const known = read.get(key) ?? { of: reading, lows: [], highs: [] };
  known.lows.push(low);
  known.highs.push(high);
  read.set(key, known);
}

const spread = ({ of: { at, quantity, unit }, lows, highs }: ReadingDraws): ReadingTolerance => ({
  at,
  quantity,
  unit,
  low: quantiles(lows),
  high: quantiles(highs),
});

/**
 * What knobs and gains that are a little off do to every output: the 5 to 95 % range of its guaranteed extremes, over
 * seeded draws. Every knob is off by a normal error of 1 % of its travel, every output's gain by 0.5 %, unless told.
 */
export function tolerance(patch: Patch, options: ToleranceOptions = {}): ToleranceReport {
  const { knob = 0.01, gain = 0.005 } = options;
  const draws = Math.max(LEAST_DRAWS, options.draws ?? LEAST_DRAWS);
  const random = stream(patch.settings.seed ^ 0x5eed);
  const sockets = buildGraph(patch).modules.flatMap((m) => m.outputs.map((o) => o.socket));
  const read = new Map<string, ReadingDraws>();
  const least = new Map(sockets.map((s) => [s, new Float64Array(draws)]));
  const most = new Map(sockets.map((s) => [s, new Float64Array(draws)]));
  for (let n = 0; n < draws; n++) {
    const modules = patch.modules.map((m) => mistuned(m, patch.settings.bpm, knob, random));
    const graph = misscaled(buildGraph({ ...patch, modules }), gain, random);
    const bounds = new BoundsEngine().run(graph);
    for (const m of graph.modules) {
      m.outputs.forEach((o, i) => {
        const [lo, hi] = bounds.get(m.id)?.outputs[i] ?? [0, 0];
        (least.get(o.socket) as Float64Array)[n] = lo;
        (most.get(o.socket) as Float64Array)[n] = hi;
      });
    }
    for (const reading of readingsOf(graph, bounds, null)) note(read, reading);
  }
  const entries = sockets.map((s) => {
    return [s, { min: quantiles(least.get(s) as Float64Array), max: quantiles(most.get(s) as Float64Array) }] as const;
  });
  return { draws, outputs: Object.fromEntries(entries), readings: [...read.values()].map(spread) };
}
