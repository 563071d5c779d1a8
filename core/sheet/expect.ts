import { BoundsEngine } from '../bounds/bounds';
import { tolerance } from '../answers/tolerance';
import type { Tolerance } from '../answers/tolerance';
import { readingsOf } from '../answers/readings';
import type { Reading } from '../answers/readings';
import { repeatsIn } from '../bounds/repeats';
import { idOf, nameOf } from '../document/sockets';
import type { Cable, Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { controlRate } from '../graph/upstream';
import { simulateGraph } from '../simulate/simulate';
import type { SimulateOptions } from '../simulate/types';
import type { MeterExpectation, MeterReading, MeterSpec } from './types';

/** From so many turns a second on an instrument shows AC and not each turn. */
const AUDIO_HZ = 2;
/** A voltage that moves by less stands still. */
const STILL_VOLTS = 1e-9;

export type Asset = SimulateOptions['asset'];

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
function levelsOf(trace: ArrayLike<number>): readonly [number, number] | null {
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

/** How long a two-valued voltage is high, and how often it rises, over whole turns where it has some. */
function pulsesOf(trace: ArrayLike<number>, [low, high]: readonly [number, number], sampleRate: number): Pulses {
  const middle = (low + high) / 2;
  const rises: number[] = [];
  for (let i = 1; i < trace.length; i++)
    if ((trace[i - 1] as number) < middle && (trace[i] as number) >= middle) rises.push(i);
  const [from = 0, to = trace.length] = rises.length > 1 ? [rises[0], rises.at(-1)] : [0, trace.length];
  let up = 0;
  for (let i = from; i < to; i++) if ((trace[i] as number) >= middle) up++;
  const turns = rises.length > 1 ? rises.length - 1 : rises.length;
  return { percent: (100 * up) / Math.max(1, to - from), perSecond: (turns * sampleRate) / Math.max(1, to - from) };
}

/** How often a voltage goes through its mean, in turns a second. */
function turnsOf(trace: ArrayLike<number>, mean: number, sampleRate: number): number {
  let crossings = 0;
  for (let i = 1; i < trace.length; i++)
    if ((trace[i - 1] as number) < mean !== (trace[i] as number) < mean) crossings++;
  return (crossings * sampleRate) / (2 * Math.max(1, trace.length));
}

/** How wide 5 to 95 % of each end are. */
interface Widths {
  readonly low: number;
  readonly high: number;
}

const widthsOf = (t: Tolerance | undefined): Widths =>
  t ? { low: t.min[1] - t.min[0], high: t.max[1] - t.max[0] } : { low: 0, high: 0 };

/** What an instrument shows at an output of a patch as it is plugged so far. */
export function expectAt(patch: Patch, socket: string, meter: MeterSpec, asset?: Asset): MeterExpectation {
  const { simulation, repeats, m } = seenAt(patch, socket, asset);
  const trace = simulation.traces.get(socket) ?? new Float64Array(1);
  const seen = simulation.outputs.get(socket);
  const [low, high] = seen?.settled ?? [0, 0];
  const mean = seen?.mean ?? 0;
  const drawn = tolerance(patch, { only: [socket], plain: true, rough: true, draws: 200 });
  const widths = widthsOf(drawn.outputs[socket]);
  const volts = (quantity: MeterReading['quantity'], value: number, width: number, share: number): MeterReading => ({
    quantity,
    value,
    plusMinus: width + share * Math.abs(value) + meter.volts,
    unit: 'V',
  });
  const both = (widths.low + widths.high) / 2;
  const period = repeats.get(idOf(socket))?.repeatsEvery ?? null;
  const scope = { peakToPeak: high - low, period };
  if (high - low <= STILL_VOLTS) return { at: socket, meter: [volts('steady', mean, both, meter.share)], scope };
  const levels = m?.kind.gates?.includes(nameOf(socket)) ? levelsOf(trace) : null;
  if (levels) {
    const { percent, perSecond } = pulsesOf(trace, levels, simulation.sampleRate);
    const readings: MeterReading[] = [
      volts('low', levels[0], widths.low, meter.share),
      volts('high', levels[1], widths.high, meter.share),
      { quantity: 'percent', value: percent, plusMinus: 1, unit: '%' },
      { quantity: 'pulses', value: perSecond, plusMinus: 0.01 * perSecond, unit: '/s' },
    ];
    return { at: socket, meter: readings, scope };
  }
  const hertz = period !== null ? 1 / period : turnsOf(trace, mean, simulation.sampleRate);
  if (hertz >= AUDIO_HZ || m?.kind.audible === true) {
    const ac = Math.sqrt(Math.max(0, (seen?.rms ?? 0) ** 2 - mean ** 2));
    const share = high - low > 0 ? ac / (high - low) : 0;
    return {
      at: socket,
      meter: [
        volts('rms', ac, (widths.low + widths.high) * share, meter.acShare),
        volts('mean', mean, both, meter.share),
      ],
      scope,
    };
  }
  return {
    at: socket,
    meter: [
      volts('low', low, widths.low, meter.share),
      volts('high', high, widths.high, meter.share),
      volts('mean', mean, both, meter.share),
    ],
    scope,
  };
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
