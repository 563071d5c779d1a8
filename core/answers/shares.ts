import { socketAt } from '../document/sockets';
import { BoundsEngine } from '../bounds/bounds';
import type { Patch } from '../document/types';
import type { Graph } from '../graph/graph';
import { placeOf } from '../graph/place';
import { countsOctaves } from '../units/ratios';
import { driveFor } from './drive';
import type { ErrorModel } from './errors';
import { isAskedBy, readingsOf } from './readings';
import type { Reading } from './readings';

/** What one knob makes of a reading's spread. */
export interface Share {
  readonly at: string;
  /** `module.param` */
  readonly knob: string;
  /** Of the variance that all knobs make of the low end, and of the high end, 0..1. */
  readonly low: number;
  readonly high: number;
  /** What a degree of it makes of both ends: cents where a volt doubles, dB of a gain, else the unit. */
  readonly perDegree: readonly [number, number];
  readonly unit: string;
}

/** A knob that a hand sets too coarsely for the target at a socket. */
export interface HandLimited {
  readonly knob: string;
  readonly at: string;
  /** What half a percent of its travel makes of an end, as a share of the wanted span. */
  readonly share: number;
  readonly set: 'by ear' | 'by meter';
}

/** How finely a hand sets a knob, as a share of its travel. */
export const HAND = 0.005;
/** What a target itself allows, of its span. */
const ALLOWED = 1e-3;
const DEGREES = 300;

const keyOf = (r: Reading): string => `${r.at} ${r.quantity}`;

const readingsAt = (graph: Graph): Map<string, Reading> =>
  new Map(readingsOf(graph, new BoundsEngine().run(graph), null).map((r) => [keyOf(r), r]));

/** How two figures of a reading differ: in cents, dB or their unit. */
function apart(r: Reading, a: number | null, b: number | null): number {
  if (a === null || b === null) return 0;
  return countsOctaves(r.quantity) ? (a > 0 && b > 0 ? 1200 * Math.log2(b / a) : 0) : b - a;
}

const unitOfShare = (r: Reading): string => (countsOctaves(r.quantity) ? 'cents' : r.unit || 'of it');

/** Which knobs make a reading's spread: the square of what each is off by alone, as shares of the sum. */
export function sharesOf(bench: ErrorModel): Share[] {
  const found = new Map<
    string,
    { readonly knob: string; readonly r: Reading; low: number; high: number; sigma: number }[]
  >();
  for (const { m, param, sigma } of bench.knobs) {
    if (sigma === 0) continue;
    const [down, up] = [-1, 1].map((side) => readingsAt(bench.withKnobMoved(m.index, param, side * sigma))) as [
      Map<string, Reading>,
      Map<string, Reading>,
    ];
    for (const [key, r] of up) {
      const before = down.get(key);
      if (!before) continue;
      const [low, high] = [apart(r, before.low, r.low) / 2, apart(r, before.high, r.high) / 2];
      if (low === 0 && high === 0) continue;
      found.set(key, [...(found.get(key) ?? []), { knob: socketAt(m.id, param), r, low, high, sigma }]);
    }
  }
  return [...found.values()].flatMap((list) => {
    const [lows, highs] = [list.reduce((s, x) => s + x.low ** 2, 0), list.reduce((s, x) => s + x.high ** 2, 0)];
    return list.map(({ knob, r, low, high, sigma }) => ({
      at: r.at,
      knob,
      low: lows > 0 ? low ** 2 / lows : 0,
      high: highs > 0 ? high ** 2 / highs : 0,
      perDegree: [low / (sigma * DEGREES), high / (sigma * DEGREES)] as const,
      unit: unitOfShare(r),
    }));
  });
}

/** An end of a reading where it counts: octaves wherever a volt doubles, so that a base frequency counts too; else volts. */
function endOf(r: Reading, e: 0 | 1): number {
  const figure = e === 0 ? r.low : r.high;
  return countsOctaves(r.quantity) && figure !== null && figure > 0 ? Math.log2(figure) : r.driveVolts[e];
}

/** The span that a target asks for, in the same measure; the reached one where an end of it is free. */
function wantedSpan(patch: Patch, graph: Graph, r: Reading): number {
  const spans = patch.targets.map((t) => {
    const bounded = 'low' in t && t.at === r.at && typeof t.low === 'number' && t.high !== null;
    if (!bounded) return Infinity;
    if (countsOctaves(t.quantity)) return Math.log2(t.high / t.low);
    const place = placeOf(graph, t.at, t.quantity);
    const m = place && graph.modules[place.module];
    if (!m || place.at.is !== 'end' || t.quantity === 'volts') return t.high - t.low;
    return driveFor(place.at.spec, m.params, t.high) - driveFor(place.at.spec, m.params, t.low);
  });
  const least = Math.min(...spans);
  return Number.isFinite(least) ? least : endOf(r, 1) - endOf(r, 0);
}

/**
 * Which knobs need a finer hand than one has: where half a percent of their travel moves a wanted end by more than the
 * target itself allows, a thousandth of its span; those that lack the most first.
 */
export function handLimitedOf(patch: Patch, bench: ErrorModel): HandLimited[] {
  if (patch.targets.length === 0) return [];
  const asked = (r: Reading): boolean => patch.targets.some((t) => isAskedBy(r, t));
  const here = readingsAt(bench.graph);
  const spans = new Map([...here].map(([key, r]) => [key, wantedSpan(patch, bench.graph, r)]));
  const limited = bench.knobs.flatMap(({ m, param }): HandLimited[] => {
    const there = readingsAt(bench.withKnobMoved(m.index, param, HAND));
    return [...there].flatMap(([key, r]): HandLimited[] => {
      const [before, span = 0] = [here.get(key), spans.get(key)];
      if (!before || !asked(r)) return [];
      const off = Math.max(...([0, 1] as const).map((e) => Math.abs(endOf(r, e) - endOf(before, e))));
      const share = span > 0 ? off / span : 0;
      if (share <= ALLOWED) return [];
      const ear = ['frequency', 'gain', 'note'].includes(r.quantity);
      return [{ knob: socketAt(m.id, param), at: r.at, share, set: ear ? 'by ear' : 'by meter' }];
    });
  });
  return limited.sort((a, b) => b.share - a.share);
}
