import { idOf } from '../document/sockets';
import { alike, sameDriver } from '../graph/alike';
import type { Graph, GraphInput } from '../graph/graph';
import { upstreamOf, wholeOf } from '../graph/upstream';
import { simulateGraph } from './simulate';
import { sampleCount } from './run';
import type { SimulateOptions, Simulation } from './types';

/** Numbers of kept traces, at most: 128 MiB. */
const MOST_KEPT = 16 * 1024 * 1024;

interface Last {
  readonly graph: Graph;
  readonly options: SimulateOptions;
  readonly simulation: Simulation;
  /** Whole traces of outputs that a later run may start from. */
  readonly kept: ReadonlyMap<string, Float64Array>;
}

/**
 * Runs one patch after another and runs again only what depends on what changed, from the traces that reach it.
 * Answers are those of a run from the start, bit for bit.
 */
export class Simulator {
  private last: Last | null = null;

  run(graph: Graph, options: Omit<SimulateOptions, 'given' | 'observers'>): Simulation {
    const { last } = this;
    const changed = last && sameOptions(last.options, options) ? changedModules(last.graph, graph) : null;
    const fresh = changed && downstreamOf(graph, changed);
    const simulation = last && fresh ? this.again(last, graph, options, fresh) : simulateGraph(graph, options);
    if (!last || !fresh) this.last = { graph, options, simulation, kept: new Map() };
    return simulation;
  }

  private again(last: Last, graph: Graph, options: SimulateOptions, fresh: ReadonlySet<number>): Simulation {
    if (fresh.size === 0) {
      this.last = { ...last, graph };
      return last.simulation;
    }
    const needed = frontierOf(graph, fresh, options.only);
    const valid = [...last.kept].filter(([socket]) => !fresh.has(moduleOf(graph, socket)));
    const kept = new Map(valid);
    if (!needed.every((socket) => kept.has(socket))) return this.whole(graph, options, needed);
    const traces = options.traces?.filter((socket) => fresh.has(moduleOf(graph, socket))) ?? [];
    const part = simulateGraph(graph, { ...options, traces, given: { fresh, traces: kept } });
    const simulation = merged(last.simulation, part);
    this.last = { graph, options, simulation, kept };
    return simulation;
  }

  /** All of it, keeping what reaches the modules that seem to be worked on. */
  private whole(graph: Graph, options: SimulateOptions, needed: readonly string[]): Simulation {
    const samples = sampleCount(graph.patch.settings.duration, graph.sampleRate);
    const keep = needed.length * samples <= MOST_KEPT ? needed : [];
    const asked = options.traces ?? [];
    const simulation = simulateGraph(graph, { ...options, traces: [...new Set([...asked, ...keep])] });
    const kept = new Map([...simulation.traces].filter(([socket]) => keep.includes(socket)));
    const traces = new Map([...simulation.traces].filter(([socket]) => asked.includes(socket)));
    const answer = { ...simulation, traces };
    this.last = { graph, options, simulation: answer, kept };
    return answer;
  }
}

const list = (sockets: readonly string[] | undefined): string => (sockets ?? ['*']).join();

function sameOptions(a: SimulateOptions, b: SimulateOptions): boolean {
  return (
    list(a.only) === list(b.only) &&
    list(a.traces) === list(b.traces) &&
    list(a.drives) === list(b.drives) &&
    a.columns === b.columns &&
    a.window?.[0] === b.window?.[0] &&
    a.window?.[1] === b.window?.[1] &&
    a.blockSize === b.blockSize &&
    a.asset === b.asset &&
    (a.sparing ?? false) === (b.sparing ?? false)
  );
}

/** Which modules differ; null where more does than modules of the same wiring. */
function changedModules(a: Graph, b: Graph): number[] | null {
  if (a.sampleRate !== b.sampleRate || a.modules.length !== b.modules.length) return null;
  const [settings, others] = [a.patch.settings, b.patch.settings];
  if (settings !== others && JSON.stringify(settings) !== JSON.stringify(others)) return null;
  const changed: number[] = [];
  for (const [i, m] of a.modules.entries()) {
    const other = b.modules[i];
    if (!other || m.id !== other.id || m.kind !== other.kind) return null;
    if (!alike(m, other)) changed.push(i);
    else if (!m.inputs.every((s, j) => carriesSame(s, other.inputs[j]))) return null;
  }
  return changed;
}

const carriesSame = (a: GraphInput, b: GraphInput | undefined): boolean =>
  b !== undefined && sameDriver(a.driver, b.driver);

/** The modules themselves and all that anything of them reaches. */
function downstreamOf(graph: Graph, from: readonly number[]): Set<number> {
  const targets = new Map<number, number[]>();
  for (const m of graph.modules) {
    for (const { driver } of m.inputs) {
      if (driver.type === 'output') targets.set(driver.module, [...(targets.get(driver.module) ?? []), m.index]);
    }
  }
  const reached = new Set<number>();
  const visit = (index: number): void => {
    if (reached.has(index)) return;
    reached.add(index);
    targets.get(index)?.forEach(visit);
  };
  from.forEach(visit);
  return reached;
}

/** The outputs that feed fresh modules from elsewhere. */
function frontierOf(graph: Graph, fresh: ReadonlySet<number>, only: readonly string[] | undefined): string[] {
  const upstream = only ? upstreamOf(graph, only) : wholeOf(graph);
  const run = new Set(upstream.graph.groups.flatMap((g) => g.modules));
  const sockets = new Set<string>();
  for (const index of fresh) {
    if (!run.has(index) && !upstream.driveOnly.has(index)) continue;
    for (const { driver } of graph.modules[index]?.inputs ?? []) {
      if (driver.type === 'output' && run.has(driver.module) && !fresh.has(driver.module))
        sockets.add(graph.modules[driver.module]?.outputs[driver.output]?.socket ?? '');
    }
  }
  return [...sockets];
}

function moduleOf(graph: Graph, socket: string): number {
  return graph.modules.findIndex((m) => m.id === idOf(socket));
}

function merged(before: Simulation, now: Simulation): Simulation {
  const both = <V>(a: ReadonlyMap<string, V>, b: ReadonlyMap<string, V>): Map<string, V> => new Map([...a, ...b]);
  return {
    sampleRate: now.sampleRate,
    samples: now.samples,
    outputs: both(before.outputs, now.outputs),
    inputs: both(before.inputs, now.inputs),
    ends: both(before.ends, now.ends),
    gates: both(before.gates, now.gates),
    cuts: both(before.cuts, now.cuts),
    traces: both(before.traces, now.traces),
    drives: both(before.drives, now.drives),
    pictures: both(before.pictures, now.pictures),
  };
}
