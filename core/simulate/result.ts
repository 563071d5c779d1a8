import { socketAt } from '../document/sockets';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import type { Part } from './partTypes';
import type { Run } from './run';
import { pulsesOf } from './stats';
import type { DriveStats, GateStats, Picture, Stats } from './stats';
import type { Cut, EndSeen, GateSeen, Measured, OutputSeen, Simulation } from './types';

/** What a finished run saw. */
export function resultOf(run: Run): Simulation {
  const outputs = new Map<string, OutputSeen>();
  const inputs = new Map<string, Measured>();
  const ends = new Map<string, readonly EndSeen[]>();
  const pictures = new Map<string, Picture>();
  const gates = new Map<string, GateSeen>();
  const cuts = new Map<string, Cut>();
  for (const part of run.parts) {
    for (const { socket, stats } of part.gates) gates.set(socket, gateSeen(socket, part.module, stats, run));
    if (part.limits.length > 0) cuts.set(part.module.id, cutOf(part));
    part.drives.forEach(({ picture }, i) => {
      const end = part.module.kind.ends?.[i];
      if (picture && end && !end.further)
        for (const name of end.sockets) pictures.set(socketAt(part.module.id, name), picture);
    });
    part.seen.forEach((seen, i) => {
      if (!seen) return;
      const o = part.module.outputs[i] as GraphModule['outputs'][number];
      const { stats, picture, clipped } = seen;
      outputs.set(o.socket, {
        ...measured(stats),
        settled: seen.settled.range,
        arrives: seen.arrives.range,
        clippedLow: (clipped[0] as number) / run.samples,
        clippedHigh: (clipped[1] as number) / run.samples,
      });
      if (picture) pictures.set(o.socket, picture);
    });
    ends.set(
      part.module.id,
      part.drives.map(({ stats, figures, arrives, arrivingFigures }) => ({
        ...endSeen(stats),
        arrives: arrives.range,
        ...(figures && { figures: figures.range }),
        ...(arrivingFigures && { arrivingFigures: arrivingFigures.range }),
      })),
    );
  }
  for (const part of run.parts) {
    for (const input of part.module.inputs) {
      const seen = inputSeen(run.graph, part, input, outputs);
      if (seen) inputs.set(input.socket, seen);
    }
  }
  return {
    sampleRate: run.graph.sampleRate,
    samples: run.samples,
    outputs,
    inputs,
    ends,
    gates,
    cuts,
    traces: run.traces,
    drives: run.drives,
    pictures,
  };
}

/** Where a kind limits more than once, the limit that cuts most. */
function cutOf({ limits }: Part): Cut {
  const most = (share: (stats: DriveStats) => number): number =>
    limits.reduce((x, { stats }) => Math.max(x, share(stats) / Math.max(1, stats.count)), 0);
  return { low: most((stats) => stats.below), high: most((stats) => stats.above) };
}

/** How the voltage at an input repeats, seconds; null if it does not within the window. */
function everyAt(socket: string, m: GraphModule, { graph, samples, repeats }: Run): number | null {
  const driver = m.inputs.find((s) => s.socket === socket)?.driver;
  const source = driver?.type === 'output' ? graph.modules[driver.module]?.id : undefined;
  const every = repeats?.get(source ?? '')?.repeatsEvery ?? null;
  return every !== null && Math.round(every * graph.sampleRate) <= samples ? every : null;
}

function gateSeen(socket: string, m: GraphModule, stats: GateStats, run: Run): GateSeen {
  return {
    rises: stats.rises,
    perSecond: pulsesOf(stats, everyAt(socket, m, run), run.samples, run.graph.sampleRate),
    high: stats.highSamples / run.samples,
    longestHighSeconds: stats.longestHigh / run.graph.sampleRate,
  };
}

function inputSeen(
  graph: Graph,
  part: Part,
  { driver, socket }: GraphInput,
  outputs: ReadonlyMap<string, OutputSeen>,
): Measured | null {
  if (driver.type === 'volts')
    return { min: driver.volts, max: driver.volts, mean: driver.volts, rms: Math.abs(driver.volts) };
  const delayed = part.delayed.find((d) => d.socket === socket);
  if (delayed) return measured(delayed.stats);
  const source = graph.modules[driver.module]?.outputs[driver.output]?.socket ?? '';
  const seen = outputs.get(source);
  return seen ? { min: seen.min, max: seen.max, mean: seen.mean, rms: seen.rms } : null;
}

const measured = ({ min, max, mean, rms }: Stats): Measured => ({ min, max, mean, rms });

function endSeen(stats: DriveStats): Omit<EndSeen, 'arrives'> {
  const share = (count: number): number => (stats.count > 0 ? count / stats.count : 0);
  return {
    drive: measured(stats),
    below: share(stats.below),
    atOrBelow: share(stats.atOrBelow),
    above: share(stats.above),
  };
}
