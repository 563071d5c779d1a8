import { BoundsEngine } from '../bounds/bounds';
import { ErrorModel } from '../answers/errors';
import { tolerance } from '../answers/tolerance';
import type { Tolerance } from '../answers/tolerance';
import { readingsOf } from '../answers/readings';
import type { Reading } from '../answers/readings';
import { repeatsIn } from '../bounds/repeats';
import { idOf, nameOf } from '../document/sockets';
import type { Cable, Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { controlRate, partBehind } from '../graph/upstream';
import { stream } from '../kinds/random';
import type { ChannelLimits } from '../rack/limits';
import { simulateGraph } from '../simulate/simulate';
import { GateStats, pulsesOf, settleFrom } from '../simulate/stats';
import type { SimulateOptions } from '../simulate/types';
import type { MeterExpectation, MeterQuantity, MeterReading, MeterSpec } from './types';

/** The rate from which an instrument shows AC rather than each swing, Hz. */
export const AUDIO_HZ = 2;
/** A voltage that moves by less stands still. */
export const STILL_VOLTS = 1e-9;

export type Asset = SimulateOptions['asset'];
type Channels = Pick<ChannelLimits, 'limits'>;

/** A patch as it is plugged so far. */
export function pluggedSoFar(patch: Patch, cables: readonly Cable[]): Patch {
  return { ...patch, cables, targets: [], probes: [], variants: [], bypassed: [] };
}

function seenAt(patch: Patch, socket: string, asset: Asset) {
  const graph = buildGraph(patch);
  const bounds = new BoundsEngine().run(graph);
  const repeats = repeatsIn(graph, bounds);
  const simulation = simulateGraph(
    { ...graph, sampleRate: controlRate(graph, [socket]) ?? graph.sampleRate },
    {
      traces: [socket],
      only: [socket],
      bounds,
      repeats,
      ...(asset && { asset }),
    },
  );
  const m = graph.modules.find((x) => x.id === idOf(socket));
  return { graph, bounds, simulation, repeats, m };
}

/** Two voltages and nothing between them. */
export function levelsOf(trace: ArrayLike<number>): readonly [number, number] | null {
  const levels: number[] = [];
  for (let i = 0; i < trace.length; i++) {
    const v = trace[i] as number;
    if (levels.some((x) => Math.abs(x - v) <= STILL_VOLTS)) continue;
    if (levels.push(v) > 2) return null;
  }
  const [a, b] = levels;
  return a === undefined || b === undefined ? null : [Math.min(a, b), Math.max(a, b)];
}

interface Pulses {
  readonly percent: number;
  readonly perSecond: number;
}

/** How long a two-valued voltage is high, and how often it rises, as a prediction counts them. */
function gateFigures(
  trace: Float64Array,
  [low, high]: readonly [number, number],
  sampleRate: number,
  period: number | null,
): Pulses {
  const middle = (low + high) / 2;
  const fits = period !== null && Math.round(period * sampleRate) <= trace.length;
  const every = fits ? period : null;
  const stats = new GateStats(middle, middle, settleFrom(every, trace.length, sampleRate));
  stats.add(trace, trace.length, 0);
  return {
    percent: (100 * stats.highSamples) / Math.max(1, trace.length),
    perSecond: pulsesOf(stats, every, trace.length, sampleRate),
  };
}

/** Draws from which the spread of a mean is told, and the samples of each that are run. */
const MEAN_DRAWS = 24;
const MEAN_SAMPLES = 2000;
const MEAN_RATE = { least: 500, most: 8000 } as const;
/** From 5 to 95% of a normal error, in sigmas. */
const WIDTH = 3.29;

/** The mean of the last samples, or of all where there are fewer. */
function meanOfLast(trace: Float64Array, samples: number | null): number {
  const part = samples !== null && samples > 0 && samples <= trace.length ? trace.subarray(-samples) : trace;
  return part.reduce((a, b) => a + b, 0) / part.length;
}

/** How wide 5 to 95% of a voltage's mean are, with the usual errors: of the mean itself, not of its extremes, volts. */
function meanWidth(patch: Patch, socket: string, channels: Channels, asset: Asset): number {
  const bench = new ErrorModel(patch, {}, (graph) => partBehind(graph, [socket]), channels);
  const random = stream(patch.settings.seed ^ 0x3ea4);
  const { duration } = patch.settings;
  const slow = controlRate(bench.graph, [socket]) !== null;
  const rate = slow
    ? Math.max(MEAN_RATE.least, Math.min(MEAN_RATE.most, MEAN_SAMPLES / duration))
    : bench.graph.sampleRate;
  const settings = { ...patch.settings, duration: Math.min(duration, slow ? duration : (2 * MEAN_SAMPLES) / rate) };
  const engine = new BoundsEngine();
  const means = Array.from({ length: MEAN_DRAWS }, () => {
    const graph = bench.drawn(random);
    const run = { ...graph, sampleRate: rate, patch: { ...graph.patch, settings } };
    const { traces } = simulateGraph(run, { traces: [socket], only: [socket], sparing: true, ...(asset && { asset }) });
    // Over whole periods: a rate that is off is no error of the mean.
    const every = repeatsIn(graph, engine.run(graph)).get(idOf(socket))?.repeatsEvery ?? null;
    return meanOfLast(traces.get(socket) ?? new Float64Array(1), every === null ? null : Math.round(every * rate));
  });
  const middle = means.reduce((a, b) => a + b, 0) / means.length;
  return WIDTH * Math.sqrt(means.reduce((sum, m) => sum + (m - middle) ** 2, 0) / (means.length - 1));
}

/** How often a voltage goes through its mean, in turns a second. */
export function turnsOf(trace: ArrayLike<number>, mean: number, sampleRate: number): number {
  let crossings = 0;
  for (let i = 1; i < trace.length; i++)
    if ((trace[i - 1] as number) < mean !== (trace[i] as number) < mean) crossings++;
  return (crossings * sampleRate) / (2 * Math.max(1, trace.length));
}

/** How wide 5 to 95% of each end are. */
interface Widths {
  readonly low: number;
  readonly high: number;
}

const widthsOf = (t: Tolerance | undefined): Widths =>
  t ? { low: t.min[1] - t.min[0], high: t.max[1] - t.max[0] } : { low: 0, high: 0 };

/** What an instrument shows at a socket, and how it is looked at. */
export interface Figures {
  /** What sort of voltage it is there: that decides what is read. */
  readonly sort: VoltageSort;
  readonly values: Readonly<Partial<Record<MeterQuantity, number>>>;
  readonly low: number;
  readonly high: number;
  readonly period: number | null;
}

export type VoltageSort = 'steady' | 'gate' | 'audio' | 'slow';

/** What is read of each sort of voltage, in the order of the sheet. */
export const READ_OF: Readonly<Record<VoltageSort, readonly MeterQuantity[]>> = {
  steady: ['steady'],
  gate: ['low', 'high', 'percent', 'pulses'],
  audio: ['rms', 'mean'],
  slow: ['low', 'high', 'mean'],
};

/** What an instrument shows at an output of a patch as it is plugged so far. */
export function figuresAt(patch: Patch, socket: string, asset?: Asset): Figures {
  const { simulation, repeats, m } = seenAt(patch, socket, asset);
  const trace = simulation.traces.get(socket) ?? new Float64Array(1);
  const seen = simulation.outputs.get(socket);
  const [low, high] = seen?.settled ?? [0, 0];
  const mean = seen?.mean ?? 0;
  const period = repeats.get(idOf(socket))?.repeatsEvery ?? null;
  const base = { low, high, period };
  if (high - low <= STILL_VOLTS) return { ...base, sort: 'steady', values: { steady: mean } };
  const levels = m?.kind.timing?.gates?.includes(nameOf(socket)) ? levelsOf(trace) : null;
  if (levels) {
    const { percent, perSecond } = gateFigures(trace, levels, simulation.sampleRate, period);
    return { ...base, sort: 'gate', values: { low: levels[0], high: levels[1], percent, pulses: perSecond } };
  }
  const hertz = period !== null ? 1 / period : turnsOf(trace, mean, simulation.sampleRate);
  if (hertz < AUDIO_HZ && m?.kind.sound?.audible !== true)
    return { ...base, sort: 'slow', values: { low, high, mean } };
  return { ...base, sort: 'audio', values: { rms: Math.sqrt(Math.max(0, (seen?.rms ?? 0) ** 2 - mean ** 2)), mean } };
}

/** The same with what each may be off by. */
export function expectAt(
  patch: Patch,
  socket: string,
  meter: MeterSpec,
  channels: Channels,
  asset?: Asset,
): MeterExpectation {
  const { sort, values, low, high, period } = figuresAt(patch, socket, asset);
  const drawn = tolerance(patch, { only: [socket], plain: true, voltsOnly: true, rough: true, draws: 200, channels });
  const widths = widthsOf(drawn.outputs[socket]);
  const widthOf = (quantity: MeterQuantity): number => {
    if (quantity === 'low' || quantity === 'high') return widths[quantity];
    if (quantity === 'steady') return (widths.low + widths.high) / 2;
    if (quantity === 'rms') return high > low ? ((widths.low + widths.high) * (values.rms ?? 0)) / (high - low) : 0;
    return meanWidth(patch, socket, channels, asset);
  };
  const reading = (quantity: MeterQuantity): MeterReading => {
    const value = values[quantity] ?? 0;
    if (quantity === 'percent') return { quantity, value, plusMinus: 1, unit: '%' };
    if (quantity === 'pulses') return { quantity, value, plusMinus: 0.01 * value, unit: '/s' };
    const share = quantity === 'rms' ? meter.acShare : meter.share;
    return { quantity, value, plusMinus: widthOf(quantity) + share * Math.abs(value) + meter.volts, unit: 'V' };
  };
  return { at: socket, meter: READ_OF[sort].map(reading), scope: { peakToPeak: high - low, period } };
}

/** What a destination does in a patch as it is plugged so far; null where it has no figure. */
export function readingAt(
  patch: Patch,
  socket: string,
  asset?: Asset,
): { reading: Reading; period: number | null } | null {
  const { graph, bounds, simulation, repeats, m } = seenAt(patch, socket, asset);
  const driver = m?.inputs.find((s) => s.socket === socket)?.driver;
  const source = driver?.type === 'output' ? graph.modules[driver.module] : undefined;
  const readings = readingsOf(graph, bounds, simulation);
  const reading = readings.find((r) => r.at === socket) ?? readings.find((r) => idOf(r.at) === idOf(socket));
  return reading ? { reading, period: repeats.get(source?.id ?? '')?.repeatsEvery ?? null } : null;
}
