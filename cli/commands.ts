import { closeSync, openSync, writeFileSync, writeSync } from 'node:fs';
import {
  buildGraph,
  channelFaults,
  channelLimits,
  freeFaults,
  jointAt,
  measure,
  placesOf,
  predict,
  productLines,
  simulateGraph,
  solve,
  spectrumOf,
  tolerance,
  tracesToCsv,
  tracesToWav,
} from '../core';
import type { ChannelLimits, Graph, Patch, Prediction, SolveAnswer, ToleranceReport } from '../core';
import { Refusal } from './arguments';
import type { Arguments } from './arguments';
import { readEither, seatedOn } from './documents';

export function predictCommand(patch: Patch, args: Arguments): Prediction {
  return predict(patch, { simulation: args.simulation });
}

/** What a file holds, once it is known to be a document. */
export function checkCommand({ files }: Arguments): unknown {
  const told = files.map((file) => {
    const read = readEither(file);
    if ('patch' in read) {
      const { name, modules, cables } = read.patch;
      return { ok: true, name, modules: modules.length, cables: cables.length };
    }
    const { name, modules } = read.rack;
    return { ok: true, name, modules: modules.length, channels: placesOf(read.rack).length };
  });
  return told.length === 1 ? told[0] : told;
}

/** The probes asked for, else the patch's own; each must exist. */
function probesOf(patch: Patch, args: Arguments): { graph: Graph; probes: readonly string[] } {
  const graph = buildGraph(patch);
  const sockets = new Set(graph.modules.flatMap((m) => [...m.inputs, ...m.outputs].map((s) => s.socket)));
  const probes = args.probes.length > 0 ? args.probes : patch.probes.map((p) => p.at);
  const unknown = probes.filter((p) => !sockets.has(p));
  if (unknown.length > 0) throw new Refusal(unknown.map((p) => `--probe ${p}: there is no such socket`));
  return { graph, probes };
}

export function simulateCommand(patch: Patch, args: Arguments): unknown {
  const { graph, probes } = probesOf(patch, args);
  if ((args.csv || args.wav) && probes.length === 0)
    throw new Refusal(['--csv and --wav need a --probe, or a probe in the patch']);
  const simulation = simulateGraph(graph, { traces: probes });
  if (args.csv) writeChunks(args.csv, tracesToCsv(simulation.traces, simulation.sampleRate));
  if (args.wav) writeFileSync(args.wav, tracesToWav([...simulation.traces.values()], simulation.sampleRate));
  const { outputs, inputs } = predict(patch, { simulation: false });
  const measures = [...simulation.traces].map(([socket, trace]) => {
    const repeats = (outputs[socket] ?? inputs[socket])?.repeatsEvery != null;
    return [socket, measure(trace, simulation.sampleRate, repeats)] as const;
  });
  return {
    sampleRate: simulation.sampleRate,
    samples: simulation.samples,
    outputs: Object.fromEntries(simulation.outputs),
    inputs: Object.fromEntries(simulation.inputs),
    measures: Object.fromEntries(measures),
  };
}

function solved(patch: Patch, { free, jumpers, rounded }: Arguments, channels?: ChannelLimits): SolveAnswer {
  if (patch.targets.length === 0) throw new Refusal(['the patch has no targets to solve for']);
  const faults = freeFaults(buildGraph(patch), free ?? []);
  if (faults.length > 0) throw new Refusal(faults.map((fault) => `--free ${fault}`));
  return solve(patch, { ...(free && { free }), jumpers, rounded, ...(channels && { channels }) });
}

/** The knobs for what patches want; a rack as the second file says what their channels allow. */
export function solveCommand(args: Arguments): unknown {
  const read = args.files.map(readEither);
  const racks = read.flatMap((r) => ('rack' in r ? [r.rack] : []));
  const patches = read.flatMap((r) => ('patch' in r ? [r.patch] : []));
  const [rack] = racks;
  if (racks.length > 1 || patches.length === 0) throw new Refusal(['solve takes patches, and one rack at most']);
  if (args.asMeasured && !rack) throw new Refusal(['--as-measured needs a rack']);
  const answers = patches.map((patch) => {
    const faults = rack ? channelFaults(patch, rack) : [];
    if (faults.length > 0) throw new Refusal(faults.map((f) => `${f.module} on ${f.rack}: ${f.message}`));
    const there = rack && args.asMeasured ? seatedOn(patch, rack, true) : patch;
    return solved(there, args, rack && channelLimits(there, rack));
  });
  return answers.length === 1 ? answers[0] : answers;
}

export const toleranceCommand = (patch: Patch, { draws }: Arguments): ToleranceReport =>
  tolerance(patch, draws === null ? {} : { draws });

/** The peaks of the probes' spectra; for a product of two sines also where its lines must stand. */
export function spectrumCommand(patch: Patch, args: Arguments): unknown {
  const { graph, probes } = probesOf(patch, args);
  if (probes.length === 0) throw new Refusal(['spectrum needs a --probe, or a probe in the patch']);
  const simulation = simulateGraph(graph, { traces: probes });
  const { readings } = predict(patch, { simulation: false });
  const spectra = probes.map((socket) => {
    const spectrum = spectrumOf(simulation.traces.get(socket) ?? [], simulation.sampleRate);
    const { binHz, peaks } = spectrum;
    return [socket, { binHz, peaks, products: productLines(graph, socket, readings, spectrum) }] as const;
  });
  return { sampleRate: simulation.sampleRate, spectra: Object.fromEntries(spectra) };
}

/** What the second probe is when the first is at a voltage, or at a place on its way. */
export function jointCommand(patch: Patch, args: Arguments): unknown {
  const { graph, probes } = probesOf(patch, args);
  const [a, b, ...more] = probes;
  if (a === undefined || b === undefined || more.length > 0) throw new Refusal(['joint needs two --probe']);
  const { traces, sampleRate } = simulateGraph(graph, { traces: probes });
  const crossings = jointAt(traces.get(a) ?? [], traces.get(b) ?? [], args.at, sampleRate);
  return { when: a, at: args.at, is: b, crossings };
}

function writeChunks(file: string, chunks: Iterable<string>): void {
  const handle = openSync(file, 'w');
  try {
    for (const chunk of chunks) writeSync(handle, chunk);
  } finally {
    closeSync(handle);
  }
}
