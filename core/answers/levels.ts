import { idOf } from '../document/sockets';
import { repeatsIn } from '../bounds/repeats';
import type { ModuleBounds } from '../bounds/bounds';
import type { Repeats } from '../bounds/repeats';
import { slowSeconds } from '../bounds/slow';
import { carriesAudio, inputsNamed, isAudible, sourceOf } from '../findings/paths';
import type { Graph, GraphModule } from '../graph/graph';
import { LEVEL_SECONDS, levelOf, LevelWatch } from '../simulate/level';
import type { Level } from '../simulate/level';

/** Whether sound leaves a module. */
const isHeard = (graph: Graph, m: GraphModule): boolean =>
  isAudible(m) ||
  (m.kind.category !== 'source' &&
    !m.kind.sound?.smooths &&
    m.inputs.some((s) => s.spec.role === 'signal' && carriesAudio(graph, s)));

/** Whether a socket carries sound, so that a level can be told there. */
export function hasLevel(graph: Graph, socket: string): boolean {
  const m = graph.modules.find((x) => x.id === idOf(socket));
  const input = m?.inputs.find((s) => s.socket === socket);
  return !!m && (input ? carriesAudio(graph, input) : isHeard(graph, m));
}

/** What follows the level of every output that carries sound and is in use. */
export function levelWatchers(graph: Graph): LevelWatch[] {
  const used = new Set<string>([
    ...graph.wiring.usedOutputs,
    ...[...graph.patch.probes, ...graph.patch.targets].map((x) => x.at),
  ]);
  return graph.modules
    .filter((m) => isHeard(graph, m))
    .flatMap((m) => m.outputs.filter((o) => used.has(o.socket)).map((o) => new LevelWatch(o.socket, graph.sampleRate)));
}

/** After how many seconds a level repeats that sound of these cycles makes; null where that is not told. */
export const levelRepeats = (known: Repeats | undefined): number | null => (known ? slowSeconds(known.slow) : null);

/** The steps of the last whole slow cycle before a module, else of the second half of the window. */
export function settledSteps(steps: readonly number[], every: number | null): readonly number[] {
  const cycle = every === null ? null : Math.round(every / LEVEL_SECONDS);
  if (cycle !== null && cycle >= 1 && cycle <= steps.length) return steps.slice(steps.length - cycle);
  return steps.slice(Math.floor(steps.length / 2));
}

export interface Levels {
  /** By output socket. */
  readonly levels: Readonly<Record<string, Level>>;
  /** How far the gain of a stage that passes sound falls below its greatest, dB; by module. */
  readonly reductionDb: Readonly<Record<string, number>>;
}

/** Sound at an input this far below its loudest says nothing of a gain. */
const QUIET = 1e-6;

/** How far a stage's gain falls, of the levels of what goes in and what comes out. */
function reductionOf(before: readonly number[], after: readonly number[]): number | null {
  const loudest = before.reduce((a, b) => Math.max(a, b), 0);
  const gains = after.flatMap((v, i) => ((before[i] ?? 0) > QUIET * loudest ? [v / (before[i] as number)] : []));
  const [least, most] = [Math.min(...gains), Math.max(...gains)];
  return gains.length > 0 && least > 0 ? 10 * Math.log10(most / least) : null;
}

/** The level over time at every output that carries sound, and what amplifiers take away of it. */
export function levelsOf(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  watched: readonly LevelWatch[],
): Levels {
  const repeats = repeatsIn(graph, bounds);
  const idOfOutput = new Map(graph.modules.flatMap((m) => m.outputs.map((o) => [o.socket, m.id] as const)));
  const steps = new Map(
    watched.map(
      (w) => [w.socket, settledSteps(w.steps, levelRepeats(repeats.get(idOfOutput.get(w.socket) ?? '')))] as const,
    ),
  );
  const levels = [...steps].flatMap(([socket, list]) => {
    const level = levelOf(list);
    return level ? [[socket, level] as const] : [];
  });
  const reductions = graph.modules.flatMap((m) => {
    const signals = inputsNamed(m, m.kind.stage?.amplifier?.signals ?? m.kind.stage?.gains?.[0]?.signals ?? []);
    const fed = signals.filter((s) => s.driver.type === 'output');
    const [only] = fed;
    const before =
      fed.length === 1 && only ? watched.find((w) => w.socket === sourceOf(graph, only)?.socket) : undefined;
    const after = steps.get(m.outputs[0]?.socket ?? '');
    if (!before || !after) return [];
    const reduction = reductionOf(before.steps.slice(before.steps.length - after.length), after);
    return reduction === null ? [] : [[m.id, reduction] as const];
  });
  return { levels: Object.fromEntries(levels), reductionDb: Object.fromEntries(reductions) };
}
