import { socketAt } from '../document/sockets';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import type { Graph, GraphModule } from '../graph/graph';
import { behind } from '../graph/upstream';
import { showNumber, showVolts } from '../units/show';
import { Trials } from './problem/trials';
import type { Helper } from './types';
import { placeOf } from '../graph/place';
import { runnersOf } from './problem/runner';
import { CLEAR, RELEASE, stepPeaks } from './problem/traceError';

/** What steps a row has, nearest first among those behind a socket. */
function rowBehind(graph: Graph, socket: string): GraphModule | undefined {
  const reached = behind(graph, [socket]);
  return graph.modules.find((m) => reached.has(m.index) && Array.isArray(m.params.steps));
}

/** The least highest voltage of each step. */
function leastPeaks(patch: Patch, row: GraphModule, socket: string): ReadonlyMap<number, readonly [number, number]> {
  const targets = [{ at: socket, want: 'steps', of: row.id, steps: [] } as const];
  const setting = new Trials(patch, targets, [], { runner: runnersOf() }).at([]);
  const place = placeOf(setting.graph, socket, 'volts');
  const peaks = new Map<number, readonly [number, number]>();
  for (const { step, highest, cut } of place ? stepPeaks(setting, row.id, place) : []) {
    const known = peaks.get(step);
    if (cut && known) continue;
    peaks.set(step, [Math.min(known?.[0] ?? Infinity, highest), Math.max(known?.[1] ?? -Infinity, highest)]);
  }
  return peaks;
}

const listed = (steps: readonly number[]): string => steps.map((s) => s + 1).join(', ');

/**
 * Of what makes a gate of a sequence: the level that tells chosen steps from the others, half way between the lowest of
 * those and the highest of these, with the margins of a target of `steps`.
 *
 * @param chosen step numbers, 0 first; null: the steps above the middle between lowest and highest.
 */
export function accentHelpers(patch: Patch, m: GraphModule, chosen: readonly number[] | null): Helper[] {
  const detects = m.kind.timing?.detects;
  if (!detects) return [];
  const socket = socketAt(m.id, detects.input);
  const row = rowBehind(buildGraph(patch), socket);
  const peaks = row ? leastPeaks(patch, row, socket) : new Map<number, readonly [number, number]>();
  if (!row || peaks.size < 2) return [];
  const all = [...peaks.values()].map(([lo]) => lo);
  const middle = (Math.min(...all) + Math.max(...all)) / 2;
  const on = (step: number, lo: number): boolean => (chosen ? chosen.includes(step) : lo > middle);
  const accents = [...peaks].filter(([step, [lo]]) => on(step, lo));
  const others = [...peaks].filter(([step, [lo]]) => !on(step, lo));
  const title = `Accent steps ${listed(accents.map(([step]) => step).sort((a, b) => a - b))} of ${row.label}`;
  const lowest = Math.min(...accents.map(([, [lo]]) => lo));
  const highest = Math.max(...others.map(([, [, hi]]) => hi));
  if (accents.length === 0 || others.length === 0)
    return [{ key: 'accents', title: 'Accents', says: 'Choose at least one step, but not all of them.', edits: [] }];
  const between = `accented steps reach at least ${showVolts(lowest)}, the others at most ${showVolts(highest)}`;
  if (lowest - highest < 2 * CLEAR + RELEASE)
    return [{ key: 'accents', title, says: `No threshold separates them: ${between}.`, edits: [] }];
  const volts = Number(((lowest - CLEAR + highest + CLEAR + RELEASE) / 2).toPrecision(6));
  const says = `Threshold at ${showVolts(volts)}: ${between} (${showNumber(lowest - volts, 2)} V margin above it).`;
  return [
    { key: 'accents', title, says, edits: [{ do: 'set', module: m.id, param: detects.threshold, value: volts }] },
  ];
}
