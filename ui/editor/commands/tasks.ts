import {
  addModule,
  connect,
  duplicateChain,
  feed,
  insertAfter,
  insertStage,
  kindTitle,
  openedEnd,
  partsOf,
  placeName,
  replaceStage,
  socketAt,
  stripTo,
  EditSequence,
  ownEnds,
} from '@/core';
import type { Edit, Graph, Patch } from '@/core';
import type { Choice } from '@/ui/parts/Chooser';
import { endChoices, kindChoices, sourceChoices, stageChoices, waitingEnd } from '@/ui/parts/choices';
import type { Predicted } from '@/ui/session/usePrediction';

/** What a person is about to choose: each task has choices, and each choice is a list of edits that can be looked at first. */
export type Task =
  | { readonly do: 'insert'; readonly socket: string }
  | { readonly do: 'after'; readonly output: string }
  | { readonly do: 'replace'; readonly id: string }
  | { readonly do: 'feed'; readonly socket: string }
  | { readonly do: 'end' }
  | { readonly do: 'module' }
  | { readonly do: 'copy'; readonly from: string; readonly mirrored: boolean };

export interface Made {
  readonly label: string;
  readonly edits: readonly Edit[];
  /** The stage to choose, and the end to show, once it is done. */
  readonly select?: string;
  readonly show?: string;
}

export interface Plan {
  readonly title: string;
  readonly choices: readonly Choice[];
  make(key: string): Made | null;
}

/** Outputs that can feed one more input. */
const outputChoices = (graph: Graph): Choice[] =>
  graph.modules.flatMap((m) =>
    m.outputs.map((o) => ({
      key: o.socket,
      title: placeName(graph.modules, o.socket),
      says: m.kind.title,
      group: m.kind.category === 'source' ? 'Sources of this patch' : 'Stages of this patch',
    })),
  );

/** Inputs of destinations that nothing is plugged into yet. */
function freeEnds(graph: Graph): Choice[] {
  return graph.modules.flatMap((m) =>
    ownEnds(m.kind).flatMap((end) => {
      const input = m.inputs.find((s) => s.spec.name === end.socket);
      if (!input || input.driver.type === 'output') return [];
      return [
        {
          key: input.socket,
          title: placeName(graph.modules, input.socket),
          says: end.says,
          group: 'Unused destinations in this patch',
        },
      ];
    }),
  );
}

export function planOf(task: Task, predicted: Pick<Predicted, 'graph' | 'prediction'>): Plan {
  const { graph } = predicted;
  const { patch } = graph;
  switch (task.do) {
    case 'insert':
      return {
        title: 'Insert a stage',
        choices: stageChoices,
        make(kind) {
          const done = insertStage(patch, task.socket, kind);
          return done && { label: `Insert ${kindTitle(kind)}`, edits: done.edits, select: done.id };
        },
      };
    case 'after':
      return {
        title: `Add a stage after ${placeName(graph.modules, task.output)}`,
        choices: stageChoices,
        make(kind) {
          const done = insertAfter(patch, task.output, kind);
          return done && { label: `Insert ${kindTitle(kind)}`, edits: done.edits, select: done.id };
        },
      };
    case 'replace': {
      const stage = graph.modules.find((m) => m.id === task.id);
      const choices = stage?.kind.category === 'source' ? sourceChoices : stageChoices;
      return {
        title: `Replace ${placeName(graph.modules, task.id)} with…`,
        choices: choices.filter((c) => c.key !== stage?.kind.name),
        make: (kind) => ({
          label: `Replace ${placeName(graph.modules, task.id)} with ${kindTitle(kind)}`,
          edits: replaceStage(patch, task.id, kind),
          select: task.id,
        }),
      };
    }
    case 'feed':
      return {
        title: `Choose a source for ${placeName(graph.modules, task.socket)}`,
        choices: [...outputChoices(graph), ...sourceChoices],
        make(key) {
          if (key.includes('.')) {
            return { label: `Connect ${placeName(graph.modules, task.socket)}`, edits: [connect(task.socket, key)] };
          }
          const done = feed(patch, task.socket, key);
          return done && { label: `Add ${kindTitle(key)}`, edits: done.edits, select: done.id };
        },
      };
    case 'end':
      return {
        title: 'Choose a destination',
        choices: endChoices,
        make: (key) => newEnd(patch, key),
      };
    case 'module':
      return {
        title: 'Add a module',
        choices: kindChoices,
        make(kind) {
          const done = addModule(patch, kind);
          return { label: `Add ${kindTitle(kind)}`, edits: done.edits, select: done.id };
        },
      };
    case 'copy':
      return copyPlan(task, predicted);
  }
}

function newEnd(patch: Patch, key: string): Made & { readonly show: string } {
  const { id: kind, name: socket } = partsOf(key);
  const done = addModule(patch, kind, openedEnd(kind, socket) ?? {});
  return { label: `Add ${kindTitle(kind)}`, edits: done.edits, show: socketAt(done.id, socket), select: done.id };
}

/** Marks a choice that is a module yet to be added. */
const NEW = 'new ';

function copyPlan(
  task: Task & { readonly do: 'copy' },
  { graph, prediction }: Pick<Predicted, 'graph' | 'prediction'>,
): Plan {
  const { patch } = graph;
  const arrives = prediction.inputs[task.from]?.bound ?? [0, 0];
  const strip = stripTo(graph, task.from);
  const how = task.mirrored ? ', mirrored' : '';
  return {
    title: `Copy the path to ${placeName(graph.modules, task.from)}${how}: choose a destination`,
    choices: [
      ...freeEnds(graph),
      ...endChoices.map((c) => ({ ...c, key: `${NEW}${c.key}`, group: `New: ${c.group}` })),
    ],
    make(key) {
      if (!strip) return null;
      const fresh = key.startsWith(NEW) ? newEnd(patch, key.slice(NEW.length)) : null;
      const to = fresh?.show ?? key;
      const work = new EditSequence(patch).do(...(fresh?.edits ?? []));
      work.do(...duplicateChain(work.patch, strip, to, task.mirrored, arrives));
      return { label: `Copy path to ${placeName(graph.modules, to)}${how}`, edits: work.edits, show: to };
    },
  };
}

/** The ends as the editor lists them: those that are reached, then those that still wait for a cable. */
export function listedEnds(graph: Graph, reached: readonly string[], shown: string | null): string[] {
  const plugged = (output: string): boolean => graph.wiring.cablesFrom(output).length > 0;
  const waiting = graph.modules.flatMap((m) => waitingEnd(m, plugged) ?? []);
  const ends = [...reached, ...waiting.filter((w) => !reached.includes(w))];
  return shown !== null && !ends.includes(shown) && isEnd(graph, shown) ? [...ends, shown] : ends;
}

const isEnd = (graph: Graph, socket: string): boolean =>
  graph.modules.some((m) => m.kind.ends?.some((e) => socketAt(m.id, e.socket) === socket));
