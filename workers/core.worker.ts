import { idOf } from '@/core';
import { expose, transfer } from 'comlink';
import {
  checkedCures,
  controlRate,
  knobsFor,
  measure,
  standingsOf,
  buildGraph,
  needsTrace,
  predictGraph,
  productLines,
  Simulator,
  socketAt,
  spectrumOf,
} from '../core';
import type { AssetLookup, Found, Graph, TargetStanding, Patch, Prediction, Simulation } from '../core';
import { Assets } from './assets';
import type { CoreWorker, FullAnswer, PictureData, PreviewAnswer, ProbeAnswer, SpectrumAnswer } from '../wire/core';
import { letGo, take } from './held';
import { progressTeller } from './tellProgress';

let simulator = new Simulator();
let assets = new Assets();

function pictures(simulation: Simulation): Map<string, PictureData> {
  return new Map([...simulation.pictures].map(([socket, { min, max, reach }]) => [socket, { min, max, reach }]));
}

/** The pictures that the page was last sent by a preview. */
let sent: Simulation['pictures'] = new Map();

/** Those that have changed since: what stays as it was need not be drawn again. */
function freshPictures(simulation: Simulation): Map<string, PictureData> {
  const all = pictures(simulation);
  for (const [socket, picture] of simulation.pictures) if (sent.get(socket) === picture) all.delete(socket);
  sent = new Map([...sent, ...simulation.pictures]);
  return all;
}

interface Figure {
  readonly unit: string;
  value(drive: number): number;
}

/** What a destination makes of its drive, where the socket is one. */
function figureAt(graph: Graph, socket: string): [string, Figure][] {
  const m = graph.modules.find((x) => x.id === idOf(socket));
  const end = m?.kind.ends?.find((e) => socketAt(m.id, e.socket) === socket);
  if (!m || !end) return [];
  return [[socket, { unit: end.unit(m.params), value: (drive) => end.value(m.params, drive) ?? -Infinity }]];
}

function spectrumAt(
  graph: Graph,
  socket: string,
  { readings }: Prediction,
  { traces, sampleRate }: Simulation,
): [string, SpectrumAnswer][] {
  const trace = traces.get(socket);
  if (!trace) return [];
  const spectrum = spectrumOf(trace, sampleRate);
  return [[socket, { ...spectrum, products: productLines(graph, socket, readings, spectrum) }]];
}

const repeats = ({ outputs, inputs }: Prediction, socket: string): boolean =>
  (outputs[socket] ?? inputs[socket])?.repeatsEvery != null;

/** What was found in the last whole run, for its cures. */
let last: {
  readonly version: number;
  readonly patch: Patch;
  readonly found: readonly Found[];
  readonly asset: AssetLookup;
} | null = null;

/** How the targets stand that a trace tells; the others are told on the page. */
function tracedMisses(patch: Patch, asset: AssetLookup): TargetStanding[] {
  const graph = buildGraph(patch);
  const targets = patch.targets.filter((t) => needsTrace(graph, t));
  return targets.length > 0 ? standingsOf({ ...patch, targets }, { asset }) : [];
}

/** How many modules times samples all checks of cures may take in the editor, where nobody waits for them. */
const CURE_WORK = 2e8;
const tellProgress = progressTeller(250);

const worker: CoreWorker = {
  async preview(step, { window, sockets, columns }): Promise<PreviewAnswer> {
    const graph = take(step);
    const asset = await assets.of(graph.patch);
    const start = performance.now();
    // The whole run that follows a turned knob takes the patch's own rate.
    const sampleRate = controlRate(graph, sockets);
    const simulation = simulator.run(sampleRate === null ? graph : { ...graph, sampleRate }, {
      columns,
      ...(window && { window }),
      only: sockets,
      asset,
      sparing: true,
    });
    return {
      version: step.version,
      pictures: freshPictures(simulation),
      sampleRate: simulation.sampleRate,
      milliseconds: performance.now() - start,
    };
  },
  async full(step, { bounds, window, columns, probes, spectra }): Promise<FullAnswer> {
    const graph = take(step);
    const asset = await assets.of(graph.patch);
    const start = performance.now();
    const figures = new Map(probes.flatMap((socket) => figureAt(graph, socket)));
    const { prediction, simulation, found } = predictGraph(graph, bounds, {
      progress: tellProgress,
      columns,
      ...(window && { window }),
      traces: probes,
      drives: [...figures.keys()],
      asset,
      sparing: true,
    });
    last = { version: step.version, patch: graph.patch, found, asset };
    const traces = [...simulation.traces].map(([socket, trace]) => {
      const drive = simulation.drives.get(socket);
      const figure = figures.get(socket);
      const answer: ProbeAnswer = {
        trace: Float32Array.from(trace),
        measures: measure(trace, simulation.sampleRate, repeats(prediction, socket)),
        figure: drive && figure ? { trace: Float32Array.from(drive, figure.value), unit: figure.unit } : null,
      };
      return [socket, answer] as const;
    });
    const answer: FullAnswer = {
      version: step.version,
      pictures: pictures(simulation),
      sampleRate: simulation.sampleRate,
      prediction,
      probes: new Map(traces),
      spectra: new Map(spectra.flatMap((socket) => spectrumAt(graph, socket, prediction, simulation))),
      missed: tracedMisses(graph.patch, asset),
      milliseconds: performance.now() - start,
    };
    return transfer(
      answer,
      traces.flatMap(([, { trace, figure }]) => (figure ? [trace.buffer, figure.trace.buffer] : [trace.buffer])),
    );
  },
  cures() {
    if (!last) return Promise.reject(new Error('nothing was asked for in full'));
    const { version, patch, found, asset } = last;
    const findings = checkedCures(patch, found, { asset, progress: tellProgress, finder: knobsFor }, CURE_WORK);
    return Promise.resolve({ version, findings });
  },
  forget() {
    simulator = new Simulator();
    assets = new Assets();
    sent = new Map();
    last = null;
    letGo();
    return Promise.resolve();
  },
};

expose(worker);
