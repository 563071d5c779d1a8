import { useHotkeys } from 'react-hotkeys-hook';
import { useStore } from 'zustand';
import {
  bypassStages,
  duplicateStages,
  insertStage,
  isBypassed,
  moveStage,
  placeName,
  putBack,
  removeStages,
} from '@/core';
import type { Frame } from '@/core';
import type { DeskStore } from '@/ui/session/desk';
import { setSetting, settings } from '@/ui/parts/settings';
import { stageChoices } from '@/ui/parts/choices';
import { isSingle, keysShown } from './commands';
import type { Command } from './commands';
import type { PaletteEntry } from './Palette';
import type { Scene } from '@/ui/session/scene';
import type { Task } from './tasks';
import type { Predicted } from '@/ui/session/usePrediction';

export interface Given {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly ends: readonly string[];
  /** The end whose strip is shown, and the socket of the strip itself, which may join it. */
  readonly end: string | null;
  readonly socket: string | null;
  readonly setScene: (scene: Scene) => void;
  readonly begin: (task: Task | null) => void;
}

/** What a knob, a cursor or a dialog has answered is not for the desk. */
const options = {
  ignoreEventWhen: (e: KeyboardEvent) => e.defaultPrevented || (e.target as Element).closest('[role=dialog]') !== null,
};

/** What can be done at the desk right now, with its keys bound; and all of it as entries to be found by typing. */
export function useCommands(given: Given): { list(): readonly Command[]; entries(): readonly PaletteEntry[] } {
  const singleKeys = useStore(settings, (s) => s.singleKeys);
  // Made anew whenever it is asked for, so that it speaks of the desk as it is.
  const list = (): Command[] => [...stageCommands(given), ...pathCommands(given), ...deskCommands(given)];
  const bound = list().flatMap((c) => (c.keys && (singleKeys || !isSingle(c.keys)) ? [c.keys] : []));
  useHotkeys(
    bound.join(','),
    (event, { hotkey }) => {
      const command = list().find((c) => c.keys?.split(',').includes(hotkey));
      if (!command?.can) return;
      event.preventDefault();
      command.run();
    },
    options,
  );
  return { list, entries: () => entriesOf(given, list()) };
}

function focusOn(selector: string): void {
  requestAnimationFrame(() => document.querySelector<HTMLElement | SVGElement>(selector)?.focus());
}

/** The input that a stage is inserted before: of the chosen frame, else of the destination. */
const insertionPoint = (frames: readonly Frame[], selected: string | null): string | undefined =>
  (frames.find((f) => f.module.id === selected) ?? frames.at(-1))?.input?.socket;

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

function stageCommands({ desk, predicted, begin }: Given): Command[] {
  const { patch, selected, group, edit, select } = desk.getState();
  const frames = predicted.strip?.frames ?? [];
  const at = frames.findIndex((f) => f.module.id === selected);
  const frame = frames[at];
  const before = insertionPoint(frames, selected);
  const chosen = predicted.graph.modules.find((m) => m.id === selected);
  const ids = selected === null ? [] : [selected, ...group];
  const name = ids.length > 1 ? `${ids.length} stages` : (chosen?.label ?? 'the stage');
  const off = selected !== null && isBypassed(patch, selected);
  const [earlier, later] = [moveOf(frames, ids, 'earlier'), moveOf(frames, ids, 'later')];
  const move = (way: Move | null): void => {
    if (way) edit(`move ${name}`, moveStage(patch, way.id, way.socket));
    focusOn(`[data-frame="${selected}"]`);
  };
  return [
    {
      id: 'insert',
      title: `Insert a stage before ${frame?.module.label ?? 'the end'}`,
      keys: 'i',
      can: before !== undefined,
      run: () => begin({ do: 'insert', socket: before ?? '' }),
    },
    {
      id: 'replace',
      title: `Replace ${name} by another kind`,
      keys: 'r',
      can: chosen !== undefined && group.length === 0,
      run: () => begin({ do: 'replace', id: selected ?? '' }),
    },
    {
      id: 'bypass',
      title: off ? `Put ${name} back` : `Bypass ${name}`,
      keys: 'b',
      can: chosen !== undefined,
      run: () =>
        off ? edit(`put ${name} back`, putBack(patch, selected)) : edit(`bypass ${name}`, bypassStages(patch, ids)),
    },
    {
      id: 'earlier',
      title: `Move ${name} one place earlier`,
      keys: 'alt+left',
      can: earlier !== null,
      run: () => move(earlier),
    },
    {
      id: 'later',
      title: `Move ${name} one place later`,
      keys: 'alt+right',
      can: later !== null,
      run: () => move(later),
    },
    {
      id: 'duplicate',
      title: `Duplicate ${name}`,
      keys: 'd',
      can: chosen !== undefined,
      run: () => edit(`duplicate ${name}`, duplicateStages(patch, ids)),
    },
    {
      id: 'remove',
      title: `Remove ${name}`,
      keys: 'delete,backspace',
      can: chosen !== undefined,
      run() {
        edit(`remove ${name}`, removeStages(patch, ids));
        select(null);
      },
    },
    {
      id: 'pin',
      title: `Pin the output of ${name} to the scope, or unpin it`,
      keys: 'p',
      can: chosen?.outputs[0] !== undefined,
      run() {
        const at = frame?.output ?? chosen?.outputs[0]?.socket ?? '';
        edit(`pin of ${name}`, [{ do: 'pin', at, pinned: !patch.probes.some((p) => p.at === at) }]);
      },
    },
    {
      id: 'knobs',
      title: `Go to the knobs of ${name}`,
      keys: 'k',
      can: chosen !== undefined,
      run: () => focusOn('[data-stage] [role=slider], [data-stage] select'),
    },
  ];
}

function pathCommands({ desk, predicted, ends, end, socket, begin }: Given): Command[] {
  const { selected, trail, select, showEnd, showJoining, back } = desk.getState();
  const frames = predicted.strip?.frames ?? [];
  const at = frames.findIndex((f) => f.module.id === selected);
  const joining =
    predicted.strip?.joinings.find((j) => selected !== null && j.into.socket.startsWith(`${selected}.`)) ??
    predicted.strip?.joinings[0];
  const go = (i: number): void => {
    const id = frames[i]?.module.id;
    if (id === undefined) return;
    select(id);
    focusOn(`[data-frame="${id}"]`);
  };
  const first = frames[0]?.input;
  return [
    {
      id: 'previous',
      title: 'Previous frame',
      keys: 'bracketleft',
      can: frames.length > 0,
      run: () => go(Math.max(0, at < 0 ? frames.length - 1 : at - 1)),
    },
    {
      id: 'next',
      title: 'Next frame',
      keys: 'bracketright',
      can: frames.length > 0,
      run: () => go(Math.min(frames.length - 1, at + 1)),
    },
    {
      id: 'joining',
      title: 'Follow the path that joins',
      keys: 'j',
      can: joining !== undefined,
      run: () => showJoining(socket, joining?.into.socket ?? ''),
    },
    {
      id: 'back',
      title: 'Back to the path that it joins',
      keys: 'u',
      can: trail.length > 1,
      run: () => back(trail.length - 2),
    },
    ...ends.slice(0, 9).map((e, i): Command => ({
      id: `end ${e}`,
      title: `Show ${placeName(predicted.graph.modules, e)}`,
      keys: String(i + 1),
      can: true,
      run: () => showEnd(e),
    })),
    { id: 'end', title: 'Add an end', keys: 'e', can: true, run: () => begin({ do: 'end' }) },
    {
      id: 'feed',
      title: 'Choose what drives this path',
      keys: 's',
      can: socket !== null,
      run: () => begin({ do: 'feed', socket: first && first.driver.type !== 'output' ? first.socket : (socket ?? '') }),
    },
    { id: 'module', title: 'Add any module, unplugged', keys: 'm', can: true, run: () => begin({ do: 'module' }) },
    {
      id: 'copy',
      title: 'Copy this chain to another end',
      keys: 'c',
      can: end !== null && frames.length > 1,
      run: () => begin({ do: 'copy', from: end ?? '', mirrored: false }),
    },
    {
      id: 'mirror',
      title: 'Copy this chain to another end, mirrored',
      keys: 'shift+c',
      can: end !== null && frames.length > 1,
      run: () => begin({ do: 'copy', from: end ?? '', mirrored: true }),
    },
  ];
}

function deskCommands({ desk, setScene }: Given): Command[] {
  const { history, undo, redo } = desk.getState();
  const [last, next] = [history.past.at(-1), history.future[0]];
  return [
    { id: 'undo', title: last ? `Undo: ${last.label}` : 'Undo', keys: 'mod+z', can: last !== undefined, run: undo },
    {
      id: 'redo',
      title: next ? `Redo: ${next.label}` : 'Redo',
      keys: 'mod+y,mod+shift+z',
      can: next !== undefined,
      run: redo,
    },
    {
      id: 'palette',
      title: 'Find a stage, an end or a command',
      keys: 'mod+k',
      can: true,
      run: () => setScene({ show: 'palette' }),
    },
    { id: 'variants', title: 'Variants', keys: 'v', can: true, run: () => setScene({ show: 'variants' }) },
    { id: 'history', title: 'Earlier versions', keys: 'h', can: true, run: () => setScene({ show: 'history' }) },
    {
      id: 'import',
      title: 'Bring in a MIDI, CSV or WAV file',
      keys: 'o',
      can: true,
      run: () => setScene({ show: 'import' }),
    },
    { id: 'help', title: 'Keys and words', keys: 'shift+slash', can: true, run: () => setScene({ show: 'help' }) },
    {
      id: 'guide',
      title: 'Show the first steps',
      can: true,
      run() {
        setSetting('guide', 'on');
        setScene({ show: 'desk' });
      },
    },
  ];
}

function entriesOf(given: Given, list: readonly Command[]): PaletteEntry[] {
  const { desk, predicted } = given;
  const { patch, selected, edit, select, showEnd } = desk.getState();
  const commands = list
    .filter((c) => c.can && c.id !== 'palette')
    .map((c): PaletteEntry => ({
      key: `command ${c.id}`,
      title: c.title,
      says: c.keys ? keysShown(c.keys) : '',
      group: 'Commands',
      run: c.run,
    }));
  const stages = predicted.graph.modules.map((m): PaletteEntry => ({
    key: `stage ${m.id}`,
    title: m.label,
    says: `${m.kind.title} · ${m.kind.brief(m.params)}`,
    group: 'Stages of this patch',
    run() {
      const end = given.ends.find((e) => e.startsWith(`${m.id}.`));
      if (end !== undefined) showEnd(end);
      select(m.id);
    },
  }));
  const before = insertionPoint(predicted.strip?.frames ?? [], selected);
  const inserts = stageChoices.map((c): PaletteEntry => ({
    ...c,
    key: `insert ${c.key}`,
    group: 'Insert here',
    run() {
      const done = before === undefined ? null : insertStage(patch, before, c.key);
      if (!done) return;
      edit(`insert ${c.key}`, done.edits);
      select(done.id);
    },
  }));
  return [...commands, ...stages, ...(before === undefined ? [] : inserts)];
}
