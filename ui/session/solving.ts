import { createContext, useContext } from 'react';
import { createStore } from 'zustand';
import {
  applyEdits,
  buildGraph,
  completeParams,
  editsOf,
  kindNamed,
  knobPlace,
  needsTrace,
  partsOf,
  placeName,
  showNumber,
  socketAt,
  targetText,
} from '@/core';
import type { Edit, Patch, SolveAnswer, Solution, Target, ToleranceReport } from '@/core';
import type { SolveReply, SolveRequest, SolveWorker, ToleranceReply, ToleranceRequest } from '@/wire/core';
import { measuredPatch } from './measured';
import { channels } from './channels';
import type { DeskStore } from './desk';
import { Line } from './line';
import type { Progress } from './line';

interface Question {
  readonly patch: Patch;
  readonly ask: { readonly solve: SolveRequest } | ToleranceRequest;
  /** Whoever asked is told that it is worked on. */
  readonly busy?: true;
  /** What is done with the answer. */
  readonly then: (answer: SolveAnswer | ToleranceReport) => void;
}

/** One drag of a knob or handle, from grasp to release. */
interface Drag {
  readonly base: Patch;
  readonly key: string;
  /** The knobs that moved, by name. */
  readonly touched: Set<string>;
  /** What the hand asked for last: an answer to a question before it brings its knobs alone. */
  what: string;
  edits: readonly Edit[];
  prefer: readonly string[];
  at: number;
}

/** Unasked it looks for the knobs this long at most, seconds. */
const LOOKS_FOR = 4;
/** How long a hand rests before it counts as released, milliseconds. */
const RESTS = 800;

export interface SolvingState {
  /** The answer to the last whole question, and the patch that it was asked of. */
  readonly answered: { readonly patch: Patch; readonly answer: SolveAnswer } | null;
  /** What the last answer under a hand says: which knobs run out. */
  readonly live: SolveAnswer | null;
  /** What would meet the targets of a patch, looked for unasked while the hand rests. */
  readonly hint: { readonly patch: Patch; readonly answer: SolveAnswer } | null;
  readonly spread: { readonly patch: Patch; readonly report: ToleranceReport } | null;
  readonly busy: 'solve' | 'spread' | null;
  readonly progress: Progress;
  readonly failure: string | null;
  /** Knobs keep the targets met while one is turned by hand. */
  readonly hold: boolean;
  solve(jumpers: boolean): void;
  /** Looks for the knobs without being asked, where nothing else is. */
  suggest(): void;
  spreadOf(request: ToleranceRequest): void;
  cancel(): void;
  setHold(hold: boolean): void;
  /** A target's handle moves: the free knobs follow. It counts from what was asked for last, drawn or not. */
  drag(target: Target, moved: (now: Target) => Target): void;
  /** A knob was turned by hand: with `hold`, the others follow. */
  knobTurned(module: string, param: string, before: Patch): void;
  letGo(): void;
  close(): void;
}

export type SolvingStore = ReturnType<typeof createSolving>;

/** How a target and the knobs that followed are told, for undo. */
function labelOf({ modules }: Patch, what: string, { settings }: Pick<Solution, 'settings'>): string {
  const knobs = settings.map((s) => `${knobPlace(modules, s.at)} ${showNumber(s.value, 2)}`).join('; ');
  return knobs ? `${what}: ${knobs}` : what;
}

/** The value of a knob in a patch. */
function valueIn(patch: Patch, name: string): number {
  const { id, name: param } = partsOf(name);
  const m = patch.modules.find((x) => x.id === id);
  const kind = m && kindNamed(m.kind);
  return kind ? Number(completeParams(kind, m.params, patch.settings.bpm)[param]) : 0;
}

/** What the channels of the chosen rack allow. */
function allowed(): Pick<SolveRequest, 'channels'> {
  const { limits } = channels.getState();
  return limits ? { channels: limits } : {};
}

const solveWorker = (): Worker => new Worker(new URL('@/workers/solve.worker.ts', import.meta.url), { type: 'module' });

/** All that asks the solver for one editor; its worker is there once something is asked. */
export function createSolving(desk: DeskStore) {
  let drag: Drag | null = null;
  return createStore<SolvingState>((set, get) => {
    const opened = (): Line<Question, SolveReply | ToleranceReply, SolveWorker> =>
      new Line<Question, SolveReply | ToleranceReply, SolveWorker>({
        worker: solveWorker,
        ask: (remote, { patch, ask }, stepTo) =>
          'solve' in ask
            ? remote.solve(stepTo(measuredPatch(patch)), ask.solve)
            : remote.tolerance(stepTo(measuredPatch(patch)), ask),
        onAnswer: ({ then }, reply) => {
          then('answer' in reply ? reply.answer : reply.report);
          if (owed) get().suggest();
        },
        onFailure: (failure) => set({ failure, busy: null }),
        onProgress: (progress) => set({ progress }),
      });
    let line: ReturnType<typeof opened> | null = null;
    /** A hint was due while a question waited: it never takes that one's place. */
    let owed = false;
    const put = (question: Question): void => {
      const replaced = (line ??= opened()).put(question);
      if (replaced?.busy && !question.busy) set({ busy: null });
    };

    /** What follows the hand: the knobs of the answer; those of the answer before that it leaves alone go back. */
    const follow = (now: Drag, answer: SolveAnswer): void => {
      // What was undone or done otherwise meanwhile is not followed any more.
      if (drag !== now || desk.getState().history.past.at(-1)?.key !== now.key) return;
      const best = answer.solutions[0] ?? answer.nearest;
      if (!best) return;
      const moved = new Set(best.settings.map((s) => s.at));
      const back = [...now.touched].filter((name) => !moved.has(name));
      for (const name of moved) now.touched.add(name);
      now.prefer = best.settings.length > 0 ? best.settings.map((s) => s.at) : now.prefer;
      const returns = back.map((name): Edit => {
        const { id, name: param } = partsOf(name);
        return { do: 'set', module: id, param, value: valueIn(now.base, name) };
      });
      set({ live: answer });
      desk
        .getState()
        .edit(labelOf(now.base, now.what, best), [...now.edits, ...returns, ...editsOf(best)], now.key, true);
    };

    const dragFor = (key: string, base: Patch): Drag => {
      const at = performance.now();
      if (drag?.key !== key || at - drag.at > RESTS)
        drag = { base, key, touched: new Set(), prefer: [], at, what: '', edits: [] };
      drag.at = at;
      return drag;
    };

    const ask = (now: Drag, what: string, edit: Edit, held: readonly string[]): void => {
      now.what = what;
      now.edits = [edit];
      put({
        patch: applyEdits(now.base, now.edits),
        ask: { solve: { live: true, prefer: now.prefer, held, ...allowed() } },
        then: (answer) => follow(now, answer as SolveAnswer),
      });
    };

    return {
      answered: null,
      live: null,
      hint: null,
      spread: null,
      busy: null,
      progress: null,
      failure: null,
      hold: false,
      solve(jumpers) {
        const { patch } = desk.getState();
        set({ busy: 'solve', failure: null, live: null });
        const then = (answer: SolveAnswer | ToleranceReport): void =>
          set({ answered: { patch, answer: answer as SolveAnswer }, busy: null });
        put({ patch, ask: { solve: { jumpers, ...allowed() } }, busy: true, then });
      },
      suggest() {
        const { patch } = desk.getState();
        const { busy, hint } = get();
        owed = line?.waits === true;
        if (owed || busy !== null || hint?.patch === patch || patch.targets.length === 0) return;
        const then = (answer: SolveAnswer | ToleranceReport): void =>
          set({ hint: { patch, answer: answer as SolveAnswer } });
        // A quick look is not enough where only runs tell: it would call out of reach what is not.
        const graph = buildGraph(patch);
        const traced = patch.targets.some((t) => needsTrace(graph, t));
        const look = traced ? { plain: true, seconds: LOOKS_FOR } : { live: true };
        put({ patch, ask: { solve: { ...look, ...allowed() } }, then });
      },
      spreadOf(request) {
        const { patch } = desk.getState();
        set({ busy: 'spread', failure: null });
        const then = (report: SolveAnswer | ToleranceReport): void =>
          set({ spread: { patch, report: report as ToleranceReport }, busy: null });
        put({ patch, ask: request, busy: true, then });
      },
      cancel() {
        line?.cancel();
        set({ busy: null, progress: null });
      },
      setHold: (hold) => set({ hold }),
      drag(of, moved) {
        const { patch } = desk.getState();
        const held = patch.targets.find((t) => t.at === of.at && t.id === of.id);
        if (!held) return;
        const target = moved(held);
        const now = dragFor(`target ${of.at} ${of.id ?? ''}`, patch);
        const edit: Edit = { do: 'target', at: of.at, ...(of.id !== undefined && { id: of.id }), target };
        const what = `Set target at ${placeName(now.base.modules, of.at)} to ${targetText(now.base.modules, target)}`;
        desk.getState().edit(what, [edit], now.key);
        ask(now, what, edit, []);
      },
      knobTurned(module, param, before) {
        if (!get().hold || before.targets.length === 0) return;
        const name = socketAt(module, param);
        const now = dragFor(name, before);
        const { patch } = desk.getState();
        const edit: Edit = { do: 'set', module, param, value: valueIn(patch, name) };
        const what = `${knobPlace(patch.modules, name)} ${showNumber(valueIn(patch, name), 2)}, targets held`;
        ask(now, what, edit, [name]);
      },
      letGo: () => set({ live: null }),
      close() {
        line?.close();
        line = null;
      },
    };
  });
}

export const SolvingContext = createContext<SolvingStore | null>(null);

/** The solver of the editor that this stands on. */
export function useSolving(): SolvingStore {
  const solving = useContext(SolvingContext);
  if (!solving) throw new Error('there is no solver here');
  return solving;
}
