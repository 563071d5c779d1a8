import { expose } from 'comlink';
import {
  asMeasured,
  buildGraph,
  calibrate,
  channelLimits,
  diagnose,
  faultsOf,
  faultText,
  layOver,
  parseFault,
  parseLog,
  predict,
  placesToRead,
  simulateGraph,
  SimulatedRack,
  surpriseFault,
  traceFigures,
} from '../core';
import type { ChannelLimits, Fault, Patch, ReadQuantity } from '../core';
import type { Simulated } from '../wire/bench';
import type { AtRack, BenchWorker, OverlayAnswer } from '../wire/benchJobs';
import { Assets } from './assets';
import { progressTeller } from './tellProgress';

const assets = new Assets();
const tellProgress = progressTeller(100);
/** Columns of a picture of a recording. */
const COLUMNS = 600;
/** A recording is laid over a run that is longer by this, so that it is found wherever it began, seconds. */
const BEFORE = 4;
const LONGEST = 60;

const standing = ({ patch, rack, asMeasured: measured }: AtRack): { patch: Patch; channels: ChannelLimits | null } => ({
  patch: rack && measured ? asMeasured(patch, rack) : patch,
  channels: rack && channelLimits(patch, rack),
});

async function simulated(of: AtRack, { seed, faults }: Simulated): Promise<SimulatedRack> {
  const { patch, channels } = standing({ ...of, asMeasured: false });
  const put = faults.flatMap((f): Fault[] => {
    const read = parseFault(f, patch);
    return read.ok ? [read.value] : [];
  });
  return new SimulatedRack(patch, { seed, faults: put, channels, asset: await assets.of(patch) });
}

/** Least and greatest of even parts. */
function columnsOf(x: Float64Array): [number, number][] {
  const count = Math.min(COLUMNS, x.length);
  return Array.from({ length: count }, (_, i) => {
    const part = x.subarray(Math.floor((i * x.length) / count), Math.floor(((i + 1) * x.length) / count));
    return [part.reduce((a, b) => Math.min(a, b), Infinity), part.reduce((a, b) => Math.max(a, b), -Infinity)];
  });
}

const worker: BenchWorker = {
  async diagnose(of, readings) {
    const { patch, channels } = standing(of);
    return diagnose(patch, readings, { channels, asset: await assets.of(patch), progress: tellProgress });
  },
  calibrate(rack, log) {
    const read = parseLog(log, rack);
    const [first] = read.ok ? [] : read.errors;
    if (!read.ok) return Promise.reject(new Error(`${first?.path ?? ''}: ${first?.message ?? ''}`));
    return Promise.resolve(calibrate(rack, read.value, { progress: tellProgress }));
  },
  places: async ({ patch }) => placesToRead(patch, await assets.of(patch)),
  async read(of, rack, places) {
    const meter = await simulated(of, rack);
    return places.map(({ at, quantity, step }) =>
      meter.read({ at, quantity, knobs: [], ...(step !== undefined && { step }) }),
    );
  },
  async trace(of, at, seconds, sampleRate) {
    const { patch } = standing(of);
    const asset = await assets.of(patch);
    const graph = buildGraph({ ...patch, settings: { ...patch.settings, duration: Math.min(LONGEST, seconds) } });
    const { traces, sampleRate: rate } = simulateGraph(graph, { only: [at], traces: [at], asset });
    const volts = traces.get(at) ?? new Float64Array(1);
    const every = Math.max(1, Math.floor(rate / sampleRate));
    const repeatsEvery = predict(patch, { simulation: false }).outputs[at]?.repeatsEvery ?? null;
    const quantities = placesToRead(patch, asset).find((p) => p.at === at)?.quantities ?? [];
    const kept = Float32Array.from({ length: Math.ceil(volts.length / every) }, (_, k) => volts[k * every] ?? 0);
    return { volts: kept, sampleRate: rate / every, repeatsEvery, quantities };
  },
  record: async (of, rack, at, seconds) => (await simulated(of, rack)).record(at, seconds),
  async layOver(of, { at, volts, sampleRate, fixed }) {
    const { patch } = standing(of);
    const seconds = Math.min(LONGEST, volts.length / sampleRate + BEFORE);
    const graph = buildGraph({ ...patch, settings: { ...patch.settings, duration: seconds } });
    const asset = await assets.of(patch);
    const { traces, sampleRate: rate } = simulateGraph(graph, { only: [at], traces: [at], asset });
    const found = layOver({ volts: traces.get(at) ?? [], sampleRate: rate }, { volts, sampleRate }, { fixed });
    if (!found) return null;
    const { predicted, recorded, ...rest } = found;
    const quantities = placesToRead(patch, asset).find((p) => p.at === at)?.quantities ?? [];
    const columns = {
      predicted: columnsOf(predicted),
      recorded: columnsOf(recorded),
      difference: columnsOf(recorded.map((v, k) => v - (predicted[k] as number))),
    };
    const figures = fixed
      ? quantities.map((quantity: ReadQuantity) => ({ quantity, value: traceFigures(recorded, rate)[quantity] }))
      : [];
    return { ...rest, columns, seconds: predicted.length / rate, figures } satisfies OverlayAnswer;
  },
  faults(of) {
    const { patch, channels } = standing({ ...of, asMeasured: false });
    const said = faultsOf(patch, channels).map((fault) => ({ text: faultText(patch.modules, fault), fault }));
    return Promise.resolve(said);
  },
  async surprise(of, seed) {
    const { patch, channels } = standing({ ...of, asMeasured: false });
    return { fault: surpriseFault(patch, seed, channels, await assets.of(patch)) };
  },
};

expose(worker);
