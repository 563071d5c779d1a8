import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { AtomStore } from '../law/builder';
import { constant } from '../law/affine';

/** The module that drives an input, and which of its outputs does. */
export function sourceOf(
  graph: Graph,
  { driver }: GraphInput,
): { m: GraphModule; output: string; socket: string } | null {
  if (driver.type !== 'output') return null;
  const m = graph.modules[driver.module];
  const output = m?.outputs[driver.output];
  return m && output ? { m, output: output.name, socket: output.socket } : null;
}

export const inputNamed = (m: GraphModule, name: string): GraphInput | undefined =>
  m.inputs.find((s) => s.spec.name === name);

export const inputsNamed = (m: GraphModule, names: readonly string[]): GraphInput[] =>
  names.flatMap((name) => inputNamed(m, name) ?? []);

/** All modules that an input depends on. */
export function upstreamModules(graph: Graph, inputs: readonly GraphInput[]): Set<GraphModule> {
  const found = new Set<GraphModule>();
  const visit = (input: GraphInput): void => {
    const from = sourceOf(graph, input)?.m;
    if (!from || found.has(from)) return;
    found.add(from);
    from.inputs.forEach(visit);
  };
  inputs.forEach(visit);
  return found;
}

/** The sockets where something ends: targets, inputs with a unit of their own that something drives, and end kinds. */
export function endInputs(graph: Graph): GraphInput[] {
  const targets = new Set(graph.patch.targets.map((t) => t.at));
  return graph.modules.flatMap((m) => {
    const read = new Set((m.kind.ends ?? []).flatMap((e) => e.sockets));
    return m.inputs.filter(
      (s) =>
        targets.has(s.socket) || (s.driver.type === 'output' && (read.has(s.spec.name) || m.kind.category === 'end')),
    );
  });
}

/** Modules that an end depends on. */
export const feedingEnds = (graph: Graph): Set<GraphModule> => upstreamModules(graph, endInputs(graph));

/** What repeats faster than this is heard as sound, Hz. */
export const AUDIO_HZ = 20;

/** Whether a module puts out sound by itself: an audible kind, or what repeats faster than 20 Hz. */
export const isAudible = (m: GraphModule): boolean =>
  (m.kind.sound?.audible ?? false) || (m.kind.source?.hertz?.(m.params) ?? 0) > AUDIO_HZ;

/** Whether sound comes along the signal inputs to an input. */
export function carriesAudio(graph: Graph, input: GraphInput): boolean {
  const passed = new Set<GraphModule>();
  const visit = (s: GraphInput): boolean => {
    const m = sourceOf(graph, s)?.m;
    if (!m || passed.has(m)) return false;
    passed.add(m);
    if (m.kind.sound?.smooths) return false;
    return isAudible(m) || (m.kind.category !== 'source' && m.inputs.some((x) => x.spec.role === 'signal' && visit(x)));
  };
  return visit(input);
}

/** A module's law as numbers: one output at given input voltages; null where it has memory or draws of its own. */
export function lawAt(m: GraphModule, output: string, volts: (input: GraphInput) => number): number | null {
  if (m.kind.memory(m.params, (name) => inputNamed(m, name)?.connected ?? false)) return null;
  let drawn = false;
  const law = m.kind.law(new AtomStore(), m.params, {
    in(name) {
      const input = inputNamed(m, name);
      return constant(input ? volts(input) : 0);
    },
    connected: (name) => inputNamed(m, name)?.connected ?? false,
    symbol(_name, lo) {
      drawn = true;
      return constant(Number.isFinite(lo) ? lo : 0);
    },
    range: (x) => [x.lo, x.hi],
    loading: m.loading,
  });
  const factor = m.outputs.find((o) => o.name === output)?.factor ?? 1;
  return drawn ? null : (law[output]?.c ?? 0) * factor;
}

const STEP = 0.01;

/** Small-signal gain from an input to an output around given voltages; lags pass a slow signal as it is. */
export function gainThrough(
  m: GraphModule,
  input: GraphInput,
  output: string,
  volts: (input: GraphInput) => number,
): number {
  if (m.kind.timing?.lags === input.spec.name) return m.outputs[0]?.factor ?? 1;
  const at = (shift: number): number | null => lawAt(m, output, (s) => volts(s) + (s === input ? shift : 0));
  const [above, below] = [at(STEP), at(-STEP)];
  return above === null || below === null ? 0 : (above - below) / (2 * STEP);
}
