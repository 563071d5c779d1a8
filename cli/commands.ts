import { closeSync, openSync, writeFileSync, writeSync } from 'node:fs';
import { buildGraph, measure, predict, simulateGraph, tracesToCsv, tracesToWav } from '../core';
import type { Patch, Prediction } from '../core';
import { Refusal } from './arguments';
import type { Arguments } from './arguments';

export function predictCommand(patch: Patch, args: Arguments): Prediction {
  return predict(patch, { simulation: args.simulation });
}

export function checkCommand(patch: Patch): unknown {
  return { ok: true, name: patch.name, modules: patch.modules.length, cables: patch.cables.length };
}

export function simulateCommand(patch: Patch, args: Arguments): unknown {
  const graph = buildGraph(patch);
  const sockets = new Set(graph.modules.flatMap((m) => [...m.inputs, ...m.outputs].map((s) => s.socket)));
  const probes = args.probes.length > 0 ? args.probes : patch.probes.map((p) => p.at);
  const unknown = probes.filter((p) => !sockets.has(p));
  if (unknown.length > 0) throw new Refusal(unknown.map((p) => `--probe ${p}: there is no such socket`));
  if ((args.csv || args.wav) && probes.length === 0)
    throw new Refusal(['--csv and --wav need a --probe, or a probe in the patch']);
  const simulation = simulateGraph(graph, { traces: probes });
  if (args.csv) writeChunks(args.csv, tracesToCsv(simulation.traces, simulation.sampleRate));
  if (args.wav) writeFileSync(args.wav, tracesToWav([...simulation.traces.values()], simulation.sampleRate));
  const measures = [...simulation.traces].map(
    ([socket, trace]) => [socket, measure(trace, simulation.sampleRate)] as const,
  );
  return {
    sampleRate: simulation.sampleRate,
    samples: simulation.samples,
    outputs: Object.fromEntries(simulation.outputs),
    inputs: Object.fromEntries(simulation.inputs),
    measures: Object.fromEntries(measures),
  };
}

function writeChunks(file: string, chunks: Iterable<string>): void {
  const handle = openSync(file, 'w');
  try {
    for (const chunk of chunks) writeSync(handle, chunk);
  } finally {
    closeSync(handle);
  }
}
