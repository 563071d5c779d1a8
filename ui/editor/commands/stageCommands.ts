import { bypassStages, duplicateStages, idOf, isBypassed, moveStage, placeName, putBack, removeStages } from '@/core';
import type { Frame } from '@/core';
import type { Predicted } from '@/ui/session/usePrediction';
import type { Command } from './commandTable';
import { focusOn } from './given';
import type { Given } from './given';
import type { Task } from './tasks';

/** Where a stage goes in: before the chosen frame, behind it where it is a source, else before the destination. */
export function insertion(predicted: Predicted, selected: string | null): Task | null {
  const frames = predicted.strip?.frames ?? [];
  const at = frames.findIndex((f) => f.module.id === selected);
  const chosen = predicted.graph.modules.find((m) => m.id === selected);
  const before = frames[at]?.input ?? (chosen ? undefined : frames.at(-1)?.input);
  if (before && (at > 0 || at < 0)) return { do: 'insert', socket: before.socket };
  const next = frames[at + 1]?.input?.socket;
  if (at >= 0 && next !== undefined) return { do: 'insert', socket: next };
  const output = chosen?.outputs[0]?.socket;
  return output === undefined ? null : { do: 'after', output };
}

/** Which stage goes where. */
interface Move {
  readonly id: string;
  readonly socket: string;
}

/** Stages that stand side by side change places with their neighbour: it is the neighbour that is moved. */
function moveOf(frames: readonly Frame[], ids: readonly string[], way: 'earlier' | 'later'): Move | null {
  const places = ids.map((id) => frames.findIndex((f) => f.module.id === id)).sort((a, b) => a - b);
  const [first, last] = [places[0] ?? -1, places.at(-1) ?? -1];
  const together = first > 0 && last - first === places.length - 1 && last < frames.length - 1;
  if (!together) return null;
  const neighbour = frames[way === 'earlier' ? first - 1 : last + 1];
  const before = frames[way === 'earlier' ? last + 1 : first]?.input?.socket;
  const movable = neighbour?.input && neighbour.output !== null;
  return movable && before !== undefined ? { id: neighbour.module.id, socket: before } : null;
}

/** What is done with the chosen stage, or stages. */
export function stageCommands({ desk, predicted, begin }: Given): Command[] {
  const { patch, selected, group, edit, select } = desk.getState();
  const frames = predicted.strip?.frames ?? [];
  const at = frames.findIndex((f) => f.module.id === selected);
  const frame = frames[at];
  const into = insertion(predicted, selected);
  const none = 'Select a stage first. Press [ and ] to move between stages.';
  const chosen = predicted.graph.modules.find((m) => m.id === selected);
  const ids = selected === null ? [] : [selected, ...group];
  const name = ids.length > 1 ? `${ids.length} stages` : (chosen?.label ?? 'the stage');
  const off = selected !== null && isBypassed(patch, selected);
  const [earlier, later] = [moveOf(frames, ids, 'earlier'), moveOf(frames, ids, 'later')];
  const move = (way: Move | null): void => {
    if (way) edit(`Move ${name}`, moveStage(patch, way.id, way.socket));
    focusOn(`[data-frame="${selected}"]`);
  };
  return [
    {
      id: 'insert',
      title: insertTitle(into, predicted),
      keys: 'i',
      can: into !== null,
      why: 'There’s no path yet. Add a destination first (E).',
      run: () => begin(into),
    },
    {
      id: 'replace',
      title: `Replace ${name}…`,
      keys: 'r',
      can: chosen !== undefined && group.length === 0,
      why: chosen ? 'Several stages are selected. Replace one at a time.' : none,
      run: () => begin({ do: 'replace', id: selected ?? '' }),
    },
    {
      id: 'bypass',
      title: off ? `Restore ${name}` : `Bypass ${name}`,
      keys: 'b',
      can: chosen !== undefined,
      why: none,
      run: () =>
        off ? edit(`Restore ${name}`, putBack(patch, selected)) : edit(`Bypass ${name}`, bypassStages(patch, ids)),
    },
    {
      id: 'earlier',
      title: `Move ${name} earlier`,
      keys: 'alt+left',
      can: earlier !== null,
      why: chosen ? 'It can’t move any earlier in this path.' : none,
      run: () => move(earlier),
    },
    {
      id: 'later',
      title: `Move ${name} later`,
      keys: 'alt+right',
      can: later !== null,
      why: chosen ? 'It can’t move any later in this path.' : none,
      run: () => move(later),
    },
    {
      id: 'duplicate',
      title: `Duplicate ${name}`,
      keys: 'd',
      can: chosen !== undefined,
      why: none,
      run: () => edit(`Duplicate ${name}`, duplicateStages(patch, ids)),
    },
    {
      id: 'remove',
      title: `Remove ${name}`,
      keys: 'delete,backspace',
      can: chosen !== undefined,
      why: none,
      run() {
        edit(`Remove ${name}`, removeStages(patch, ids));
        select(null);
      },
    },
    {
      id: 'pin',
      title: `Pin or unpin the output of ${name}`,
      keys: 'p',
      can: chosen?.outputs[0] !== undefined,
      why: chosen ? 'It has no output to pin.' : none,
      run() {
        const at = frame?.output ?? chosen?.outputs[0]?.socket ?? '';
        edit(`Pin or unpin ${name}`, [{ do: 'pin', at, pinned: !patch.probes.some((p) => p.at === at) }]);
      },
    },
    {
      id: 'knobs',
      title: `Go to the knobs of ${name}`,
      keys: 'k',
      can: chosen !== undefined,
      why: none,
      run: () => focusOn('[data-stage] [role=slider], [data-stage] [role=combobox]'),
    },
  ];
}

function insertTitle(into: Task | null, { graph }: Predicted): string {
  if (into?.do === 'after') return `Insert a stage after ${placeName(graph.modules, idOf(into.output))}`;
  if (into?.do !== 'insert') return 'Insert a stage';
  return `Insert a stage before ${placeName(graph.modules, idOf(into.socket))}`;
}
