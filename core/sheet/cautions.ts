import type { ModuleBounds } from '../bounds/bounds';
import type { Graph } from '../graph/graph';

/** What is usual at an input, volts. */
const USUAL = 5;

/** Cautions for ears, speakers and gear that apply to a patch, each once. */
export function cautionsOf(graph: Graph, bounds: ReadonlyMap<string, ModuleBounds>): string[] {
  const { modules } = graph;
  const sounds = modules.some((m) => m.kind.sound?.audible);
  const outlets = modules.some((m) => m.kind.sound?.outlet);
  const jumps =
    graph.groups.some((g) => g.loop) ||
    modules.some(
      (m) =>
        m.kind.sound?.feedback !== undefined || (m.kind.sound?.feedthrough !== undefined && !m.kind.stage?.amplifier),
    );
  const wide = modules.find((m) =>
    m.inputs.some((s, i) => {
      const [lo, hi] = bounds.get(m.id)?.inputs[i] ?? [0, 0];
      return s.plugged && (lo < -USUAL - 0.01 || hi > USUAL + 0.01);
    }),
  );
  const tied = modules.some((m) => m.kind.electrical?.joins && m.inputs.filter((s) => s.plugged).length > 1);
  return [
    ...(sounds
      ? [`Ears: start quiet.${jumps ? ' Resonance, feedback and ring modulation can jump in level.' : ''}`]
      : []),
    ...(outlets ? ['Speakers: connect only the line output. Never send DC or modular level to speakers.'] : []),
    ...(wide
      ? [`Gear: some voltages exceed ±5 V, for example at ${wide.label}. Check that the input accepts them.`]
      : []),
    ...(tied ? ['Gear: outputs are joined. Use a mixer, or series resistors; never join them directly.'] : []),
    'Gear: switch off before you move a power cable.',
  ];
}
