import { idOf, nameOf } from '../document/sockets';
import type { Graph, GraphInput, GraphModule } from './graph';

/** One frame of a strip: a stage and the way the main signal takes through it. */
export interface Frame {
  readonly module: GraphModule;
  /** Where the path comes in; null at the source. */
  readonly input: GraphInput | null;
  /** Where it goes out; null at the destination. */
  readonly output: string | null;
}

/** What joins a stage from beside the main path. */
export interface Joining {
  /** The module that it joins at, and by which input. */
  readonly at: GraphModule;
  readonly into: GraphInput;
  readonly frames: readonly Frame[];
}

export interface Strip {
  /** From source to destination; the last frame is where it ends. */
  readonly frames: readonly Frame[];
  readonly joinings: readonly Joining[];
}

const sourceOf = (graph: Graph, input: GraphInput): { module: GraphModule; output: string } | null => {
  if (input.driver.type !== 'output') return null;
  const from = graph.modules[input.driver.module];
  const output = from?.outputs[input.driver.output]?.socket;
  return from && output ? { module: from, output } : null;
};

/** The input that a path is followed back through: a stage's first signal that something drives, or its first gate. */
function mainInput(m: GraphModule): GraphInput | null {
  if (m.kind.category !== 'between') return null;
  const driven = m.inputs.filter((s) => s.driver.type === 'output' && !s.driver.delayed);
  const role = m.inputs.some((s) => s.spec.role === 'signal') ? 'signal' : 'gate';
  return driven.find((s) => s.spec.role === role) ?? null;
}

/** Whether a stage inverts its main signal. */
export function flipsAt({ module: m, input, output }: Pick<Frame, 'module' | 'input' | 'output'>): boolean {
  const p = m.params;
  const name = output === null ? undefined : nameOf(output);
  let flips = name !== undefined && Object.hasOwn(m.kind.negated ?? {}, name);
  if (m.kind.stage?.flips?.(p)) flips = !flips;
  const { amount } = input?.spec ?? {};
  if (amount !== undefined && Number(p[amount]) < 0) flips = !flips;
  return flips;
}

/** The path that ends at an input, followed back to its source. */
function pathTo(graph: Graph, end: GraphInput, owner: GraphModule): Frame[] {
  const frames: Frame[] = [{ module: owner, input: end, output: null }];
  const passed = new Set<number>();
  let at = sourceOf(graph, end);
  while (at && !passed.has(at.module.index)) {
    passed.add(at.module.index);
    const input = mainInput(at.module);
    frames.push({ module: at.module, input, output: at.output });
    at = input && sourceOf(graph, input);
  }
  return frames.reverse();
}

function endAt(graph: Graph, socket: string): { readonly owner: GraphModule; readonly end: GraphInput } | null {
  const id = idOf(socket);
  const owner = graph.modules.find((m) => m.id === id);
  const end = owner?.inputs.find((s) => s.socket === socket);
  return owner && end ? { owner, end } : null;
}

/** The path alone that ends at a socket, from source to destination; empty where there is no such socket. */
export function framesTo(graph: Graph, socket: string): readonly Frame[] {
  const found = endAt(graph, socket);
  return found ? pathTo(graph, found.end, found.owner) : [];
}

/** The strip that ends at a socket of a destination, with the paths that join it on the way. */
export function stripTo(graph: Graph, socket: string): Strip | null {
  const found = endAt(graph, socket);
  if (!found) return null;
  const { owner, end } = found;
  const frames = pathTo(graph, end, owner);
  const joinings = frames.flatMap((frame) => {
    const isEnd = frame.output === null;
    const others = frame.module.inputs.filter((s) => {
      if (s === frame.input || s.driver.type !== 'output') return false;
      // At the destination only what adds to the same figure joins.
      return (
        !isEnd ||
        (frame.module.kind.ends ?? []).some((e) => e.sockets.includes(s.spec.name) && e.sockets.includes(end.spec.name))
      );
    });
    return others.map((into) => ({ at: frame.module, into, frames: pathTo(graph, into, frame.module).slice(0, -1) }));
  });
  return { frames, joinings };
}

/** The destinations of a patch, as sockets: targets, inputs with a unit of their own, and what feeds an end kind. */
export function endsOf(graph: Graph): string[] {
  const targets = graph.patch.targets.map((t) => t.at);
  const sockets = graph.modules.flatMap((m) => {
    const own = (m.kind.ends ?? []).flatMap((end) => {
      const used = m.inputs.filter((s) => s.driver.type === 'output' && end.sockets.includes(s.spec.name));
      const socket = used.find((s) => s.spec.name === end.socket) ?? (end.always ? used[0] : undefined);
      return socket && (end.always || used.length > 0) ? [socket.socket] : [];
    });
    const fed =
      m.kind.category === 'end' ? m.inputs.filter((s) => s.driver.type === 'output').map((s) => s.socket) : [];
    return own.length > 0 ? own : fed;
  });
  return [
    ...new Set([...sockets, ...targets.filter((t) => graph.modules.some((m) => m.inputs.some((s) => s.socket === t)))]),
  ];
}

/**
 * The end that a patch is shown by first: one that something is wanted at, else the one at the end of the longest path,
 * else the first. Null without ends.
 */
export function openingEnd(graph: Graph): string | null {
  const ends = endsOf(graph);
  const wanted = ends.find((at) => graph.patch.targets.some((t) => t.at === at));
  if (wanted !== undefined) return wanted;
  const lengths = ends.map((at) => framesTo(graph, at).length);
  return ends[lengths.indexOf(Math.max(...lengths))] ?? null;
}
