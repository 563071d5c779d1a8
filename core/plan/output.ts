import { socketAt } from '../document/sockets';
import type { ModuleDoc, Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import { freeId } from '../edit/editSequence';
import { buildGraph, feedingModules } from '../graph/graph';
import { soundOf } from '../graph/sound';

/**
 * What leads a patch's sound out: a line output, with the last stages that a sound passes plugged into it, two at most.
 *
 * @returns nothing where there is an output already, or no sound.
 */
export function outputEdits(patch: Patch): Edit[] {
  const graph = buildGraph(patch);
  if (graph.modules.some((m) => m.kind.sound?.outlet)) return [];
  const sound = soundOf(graph).modules;
  const feeding = feedingModules(graph);
  const ends = graph.modules.filter((m) => m.outputs.length > 0 && !feeding.has(m.id) && !m.bypassed);
  const last = ends.filter((m) => sound.has(m.id));
  const sources = last.length > 0 ? last : ends.filter((m) => m.kind.sound?.audible === true);
  if (sources.length === 0) return [];
  const id = freeId(patch, 'out');
  const added: ModuleDoc = { id, kind: 'lineOut', label: 'Output' };
  return [
    { do: 'add', module: added },
    ...sources.slice(0, 2).flatMap((m, i): Edit[] => {
      const from = m.outputs[0]?.socket;
      return from ? [{ do: 'plug', cable: { from, to: socketAt(id, i === 0 ? 'left' : 'right') } }] : [];
    }),
  ];
}
