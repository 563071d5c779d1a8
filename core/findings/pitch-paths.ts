import { socketAt } from '../document/sockets';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { gainThrough, sourceOf, upstreamModules } from './paths';

export interface PitchStage {
  readonly m: GraphModule;
  readonly input: GraphInput;
}

/** A way from a note source to a `pitch` socket. */
export interface PitchPath {
  /** The `pitch` socket. */
  readonly end: GraphInput;
  readonly owner: GraphModule;
  /** What the notes come from, and its socket. */
  readonly source: GraphModule;
  readonly output: string;
  /** From the source on. */
  readonly stages: readonly PitchStage[];
  /** Of a slow voltage along the way, the source's own load included. */
  readonly gain: number;
}

function isNoteSource(m: GraphModule, output: string): boolean {
  return m.kind.source?.notes?.(output, `${m.label} ${m.id}`) ?? false;
}

/** How far a small move of one output moves every other output, all ways to it together. */
function movesOf(graph: Graph, source: string): Map<string, number> {
  const moves = new Map<string, number>([[source, 1]]);
  const fed = (s: GraphInput): number => {
    if (s.driver.type !== 'output' || s.driver.delayed || s.spec.role === 'gate') return 0;
    return moves.get(sourceOf(graph, s)?.socket ?? '') ?? 0;
  };
  for (const index of graph.groups.flatMap((g) => g.modules)) {
    const m = graph.modules[index] as GraphModule;
    const moved = m.inputs.filter((s) => fed(s) !== 0);
    if (moved.length === 0) continue;
    for (const o of m.outputs) {
      const sum = moved.reduce((total, s) => total + fed(s) * gainThrough(m, s, o.name, () => 0.5), 0);
      if (Math.abs(sum) > 1e-6 && o.socket !== source) moves.set(o.socket, sum);
    }
  }
  return moves;
}

const known = new WeakMap<Graph, readonly PitchPath[]>();

/**
 * All 1 V/oct paths: from a sequencer, a quantizer or a constant named for pitch to a `pitch` socket. Three findings
 * ask for them, so they are worked out once a graph.
 */
export function pitchPaths(graph: Graph): readonly PitchPath[] {
  let paths = known.get(graph);
  if (!paths) known.set(graph, (paths = findPaths(graph)));
  return paths;
}

/** The outputs that carry pitch: of its sources, and of the stages that it passes. */
export const pitchedOutputs = (graph: Graph): ReadonlySet<string> =>
  new Set(
    pitchPaths(graph).flatMap((p) => [
      socketAt(p.source.id, p.output),
      ...p.stages.flatMap((s) => s.m.outputs.map((o) => o.socket)),
    ]),
  );

function findPaths(graph: Graph): PitchPath[] {
  const ends = graph.modules.flatMap((owner) => {
    const end = owner.inputs.find((s) => s.spec.name === 'pitch' && s.driver.type === 'output');
    return end ? [{ owner, end }] : [];
  });
  if (ends.length === 0) return [];
  return graph.modules.flatMap((source) =>
    source.outputs
      .filter((o) => isNoteSource(source, o.name))
      .flatMap((o) => {
        const moves = movesOf(graph, o.socket);
        return ends.flatMap(({ owner, end }): PitchPath[] => {
          const gain = moves.get(sourceOf(graph, end)?.socket ?? '');
          if (gain === undefined) return [];
          const before = upstreamModules(graph, [end]);
          const stages = graph.modules.flatMap((m): PitchStage[] => {
            const input = m.inputs.find((s) => moves.has(sourceOf(graph, s)?.socket ?? ''));
            return m !== source && input && before.has(m) && m.outputs.some((x) => moves.has(x.socket))
              ? [{ m, input }]
              : [];
          });
          return [{ end, owner, source, output: o.name, stages, gain: gain * o.factor }];
        });
      }),
  );
}
