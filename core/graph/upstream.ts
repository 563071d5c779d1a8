import { partsOf } from '../document/sockets';
import type { Graph } from './graph';
import { CONTROL_RATE, needsAudio } from './rate';

export interface Upstream {
  readonly graph: Graph;
  /** Modules of which only what arrives at their destination sockets is wanted, not what they make of it. */
  readonly driveOnly: ReadonlySet<number>;
}

/** The part of a graph that the given sockets depend on: for an output its module too, for an input what arrives. */
export function upstreamOf(graph: Graph, sockets: readonly string[]): Upstream {
  const needed = new Set<number>();
  const driveOnly = new Set<number>();
  const visit = (index: number): void => {
    if (needed.has(index)) return;
    needed.add(index);
    for (const { driver } of graph.modules[index]?.inputs ?? []) if (driver.type === 'output') visit(driver.module);
  };
  const byId = new Map(graph.modules.map((m) => [m.id, m]));
  for (const socket of sockets) {
    const { id, name } = partsOf(socket);
    const m = byId.get(id);
    if (!m) continue;
    if (m.outputs.some((o) => o.name === name)) visit(m.index);
    else {
      const together = (m.kind.ends ?? []).filter((end) => end.sockets.includes(name)).flatMap((end) => end.sockets);
      driveOnly.add(m.index);
      for (const { spec, driver } of m.inputs) {
        if ((spec.name === name || together.includes(spec.name)) && driver.type === 'output') visit(driver.module);
      }
    }
  }
  for (const index of needed) driveOnly.delete(index);
  const groups = graph.groups.filter((g) => g.modules.some((m) => needed.has(m)));
  return { graph: { ...graph, groups }, driveOnly };
}

/** The modules that what arrives at a socket depends on, by id: those behind it, and its own. */
export function modulesUpTo(graph: Graph, socket: string): ReadonlySet<string> {
  const { graph: part, driveOnly } = upstreamOf(graph, [socket]);
  const indexes = [...part.groups.flatMap((g) => g.modules), ...driveOnly];
  return new Set(indexes.flatMap((i) => graph.modules[i]?.id ?? []));
}

/** Whether anything in a graph's groups needs the audio sample rate. */
export const needsAudioRate = ({ groups, modules }: Graph): boolean =>
  groups.some((g) => g.modules.some((i) => modules[i] !== undefined && needsAudio(modules[i])));

/** Whether only slow voltages lead to sockets. */
export const isSlow = (graph: Graph, sockets: readonly string[]): boolean =>
  !needsAudioRate(upstreamOf(graph, sockets).graph);

/** The rate by which sockets can be looked at that only slow voltages lead to; null where their patch's own is needed. */
export function controlRate(graph: Graph, sockets: readonly string[]): number | null {
  const auto = graph.patch.settings.sampleRate === 'auto';
  return auto && !needsAudioRate(upstreamOf(graph, sockets).graph) ? CONTROL_RATE : null;
}

export const wholeOf = (graph: Graph): Upstream => ({ graph, driveOnly: new Set() });

/** Indices of all modules that some sockets depend on, their own included. */
export function behind(graph: Graph, sockets: readonly string[]): ReadonlySet<number> {
  const { graph: part, driveOnly } = upstreamOf(graph, sockets);
  return new Set([...part.groups.flatMap((g) => g.modules), ...driveOnly]);
}

/** The part of a graph that these modules are. */
export function partBehind(graph: Graph, sockets: readonly string[]): Graph {
  const kept = behind(graph, sockets);
  return { ...graph, groups: graph.groups.filter((g) => g.modules.some((m) => kept.has(m))) };
}
