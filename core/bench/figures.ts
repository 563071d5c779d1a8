import type { Repeats } from '../bounds/repeats';
import { idOf } from '../document/sockets';
import type { Graph } from '../graph/graph';
import { isSlow } from '../graph/upstream';
import { STILL_VOLTS } from '../sheet/expect';
import { USUAL_METER } from '../sheet/types';
import { extremes } from '../simulate/extremes';
import { simulateGraph } from '../simulate/simulate';
import type { SimulateOptions, Simulation } from '../simulate/types';
import type { BenchReading } from './readings';
import type { ReadQuantity } from './quantities';

export type Reading = Pick<BenchReading, 'at' | 'quantity' | 'step' | 'knobs'>;

/** What an instrument adds to a figure, in its unit. */
export function meterShare(quantity: ReadQuantity, value: number): number {
  const size = Math.abs(value);
  if (quantity === 'percent') return 1;
  if (quantity === 'pulses') return 0.01 * size;
  if (quantity === 'hz') return 0.001 * size;
  return (quantity === 'rms' ? USUAL_METER.acShare : USUAL_METER.share) * size + USUAL_METER.volts;
}

/** Times of rising passes through a level, samples, in between where it says so. */
function passes(trace: Float64Array, level: number): number[] {
  const found: number[] = [];
  for (let k = 1; k < trace.length; k++) {
    const [a, b] = [trace[k - 1] as number, trace[k] as number];
    if (a < level && b >= level) found.push(k - 1 + (level - a) / (b - a));
  }
  return found;
}

/** How a simulation is looked at. */
export interface Window {
  readonly rate: number;
  readonly seconds: number;
}

/** A graph that is run over a window. */
export const inWindow = (graph: Graph, { rate, seconds }: Window): Graph => ({
  ...graph,
  sampleRate: rate,
  patch: { ...graph.patch, settings: { ...graph.patch.settings, duration: seconds } },
});

/** Slow voltages are watched for so many windows, at most so long, seconds: their extremes come when they come. */
const PATIENCE = 5;
const LONGEST = 120;

/** How a socket is watched at the rack: slow voltages that repeat for longer than the patch's window. */
export interface Watch {
  readonly slow: boolean;
  readonly seconds: number;
}

function watchOf(graph: Graph, repeats: ReadonlyMap<string, Repeats>, at: string): Watch {
  const slow = isSlow(graph, [at]);
  const from = sourceOf(graph, at);
  const every = typeof from === 'string' ? (repeats.get(idOf(from))?.repeatsEvery ?? null) : null;
  const { duration } = graph.patch.settings;
  return {
    slow,
    seconds: slow && every !== null ? Math.max(duration, Math.min(LONGEST, PATIENCE * duration)) : duration,
  };
}

/** Indices of readings that are watched alike, together. */
export function watchedTogether(
  graph: Graph,
  repeats: ReadonlyMap<string, Repeats>,
  readings: readonly Pick<Reading, 'at'>[],
): { readonly watch: Watch; readonly of: readonly number[] }[] {
  const watches = readings.map(({ at }) => watchOf(graph, repeats, at));
  const key = (w: Watch): string => `${w.slow} ${w.seconds}`;
  return [...new Map(watches.map((w) => [key(w), w])).values()].map((watch) => ({
    watch,
    of: watches.flatMap((w, i) => (key(w) === key(watch) ? [i] : [])),
  }));
}

interface FiguresOptions extends Window, Pick<SimulateOptions, 'repeats' | 'asset' | 'given'> {
  /** Means are those of whole turns: how they change tells nothing of where the window ends. */
  readonly turns?: boolean;
}

/** What readings come to in a graph, in their order. */
export function figuresIn(
  graph: Graph,
  readings: readonly Pick<Reading, 'at' | 'quantity'>[],
  { rate, seconds, repeats, asset, given, turns = false }: FiguresOptions,
): number[] {
  const places = readings.map(({ at, quantity }) => ({ from: sourceOf(graph, at), quantity }));
  const sockets = new Set(places.flatMap(({ from }) => (typeof from === 'string' ? [from] : [])));
  const traces = new Set(
    places.flatMap(({ from, quantity }) =>
      typeof from === 'string' && (isCounted(quantity) || (turns && isAveraged(quantity))) ? [from] : [],
    ),
  );
  const seen = simulateGraph(inWindow(graph, { rate, seconds }), {
    only: [...sockets],
    traces: [...traces],
    sparing: true,
    ...(repeats && { repeats }),
    ...(asset && { asset }),
    ...(given && { given }),
  });
  return places.map(({ from, quantity }) =>
    typeof from === 'string'
      ? turns && isAveraged(quantity)
        ? turnsFigure(seen, from, quantity)
        : figureOf(seen, from, quantity)
      : standingFigure(from, quantity),
  );
}

/** Whether a figure is counted off a trace. */
const isCounted = (quantity: ReadQuantity): boolean =>
  quantity === 'percent' || quantity === 'pulses' || quantity === 'hz';

const isAveraged = (quantity: ReadQuantity): boolean => quantity === 'mean' || quantity === 'rms';

/** A mean over the whole turns of a voltage, or over all of it where it makes none. */
function turnsFigure(seen: Simulation, socket: string, quantity: ReadQuantity): number {
  const whole = seen.traces.get(socket) ?? new Float64Array(1);
  const [low, high] = extremes(whole);
  const at = high - low <= STILL_VOLTS ? [] : passes(whole, (low + high) / 2);
  const [from = 0, to = whole.length] = [at[0], at.at(-1)];
  const [first, last] = to - from > 1 ? [Math.ceil(from), Math.floor(to)] : [0, whole.length - 1];
  // Straight between samples: the ends count as far as they reach.
  const sum = (of: (v: number) => number): number => {
    let total = 0;
    for (let k = first; k <= last; k++) total += of(whole[k] as number);
    if (to - from <= 1 || at.length < 2) return total / (last - first + 1);
    const middle = of((low + high) / 2);
    const ends =
      (first - from) * (middle + of(whole[first] as number)) + (to - last) * (middle + of(whole[last] as number));
    const inner = total - (of(whole[first] as number) + of(whole[last] as number)) / 2;
    return (inner + ends / 2) / (to - from);
  };
  const mean = sum((v) => v);
  return quantity === 'mean'
    ? mean
    : Math.sqrt(
        Math.max(
          0,
          sum((v) => (v - mean) ** 2),
        ),
      );
}

/** The output whose voltage is at a socket, or the voltage that stands there. */
export function sourceOf(graph: Graph, at: string): string | number {
  const m = graph.modules.find((x) => x.id === idOf(at));
  const driver = m?.inputs.find((s) => s.socket === at)?.driver;
  if (!driver) return m?.outputs.some((o) => o.socket === at) ? at : 0;
  if (driver.type === 'volts') return driver.volts;
  return graph.modules[driver.module]?.outputs[driver.output]?.socket ?? 0;
}

const standingFigure = (volts: number, quantity: ReadQuantity): number =>
  quantity === 'rms' || isCounted(quantity) ? 0 : volts;

function figureOf(seen: Simulation, socket: string, quantity: ReadQuantity): number {
  const out = seen.outputs.get(socket);
  if (!out) return 0;
  const [low, high] = out.settled;
  switch (quantity) {
    case 'low':
      return low;
    case 'high':
      return high;
    case 'mean':
    case 'steady':
      return out.mean;
    case 'rms':
      return Math.sqrt(Math.max(0, out.rms ** 2 - out.mean ** 2));
    default:
      return high - low <= STILL_VOLTS ? 0 : countedOf(seen, socket, quantity, (low + high) / 2);
  }
}

function countedOf(seen: Simulation, socket: string, quantity: ReadQuantity, level: number): number {
  const trace = seen.traces.get(socket) ?? new Float64Array(1);
  if (quantity === 'percent') return (100 * trace.reduce((n, v) => n + (v >= level ? 1 : 0), 0)) / trace.length;
  const at = passes(trace, level);
  const [first, last] = [at[0], at.at(-1)];
  if (first === undefined || last === undefined) return 0;
  return last > first ? ((at.length - 1) * seen.sampleRate) / (last - first) : seen.sampleRate / trace.length;
}

/** What an instrument reads of a voltage as it was recorded, by quantity. */
export function traceFigures(trace: Float64Array, sampleRate: number): Readonly<Record<ReadQuantity, number>> {
  let [low, high, sum, squares] = [Infinity, -Infinity, 0, 0];
  for (const v of trace) {
    [low, high] = [Math.min(low, v), Math.max(high, v)];
    sum += v;
    squares += v * v;
  }
  const mean = sum / Math.max(1, trace.length);
  const at = passes(trace, (low + high) / 2);
  const [first, last] = [at[0], at.at(-1)];
  const hz =
    first === undefined || last === undefined || last <= first ? 0 : ((at.length - 1) * sampleRate) / (last - first);
  const middle = (low + high) / 2;
  return {
    low,
    high,
    mean,
    steady: mean,
    rms: Math.sqrt(Math.max(0, squares / Math.max(1, trace.length) - mean * mean)),
    percent: (100 * trace.reduce((n, v) => n + (v >= middle ? 1 : 0), 0)) / Math.max(1, trace.length),
    pulses: hz,
    hz,
  };
}
