import { placeName } from '../../document/names';
import type { ParamValue } from '../../kinds/params';
import { knobsIn } from '../../document/knobs';
import { idOf, socketAt } from '../../document/sockets';
import type { ModuleDoc, Patch } from '../../document/types';
import { targetSockets } from '../../document/targets';
import type { Target } from '../../document/targets';
import { applyEdits } from '../../edit/edit';
import type { Edit } from '../../edit/edit';
import { insertStage } from '../../edit/stages';
import { buildGraph } from '../../graph/graph';
import { showNumber } from '../../units/show';
import { isSetup } from '../../kinds/knobs';
import { modulesBehind } from '../problem/knobs';
import type { JumperSetting, Limit, Solution, Suggestion } from '../types';
import { editsOf } from '../types';

/** Asks for a solution of another patch. */
export type Ask = (patch: Patch) => readonly Solution[];

interface Idea {
  readonly text: string;
  readonly edits: readonly Edit[];
  /** Only lets knobs reach further. */
  readonly reachOnly?: boolean;
}

/** Whether every setting lies within what its knob can be set to now. */
const fits = (patch: Patch, { settings }: Solution): boolean =>
  settings.every(({ at, value }) => {
    const m = patch.modules.find((x) => x.id === idOf(at));
    const knob = m && knobsIn(m, patch.settings.bpm).find((k) => k.at === at);
    return knob !== undefined && value >= knob.min && value <= knob.max;
  });

const labelOf = (patch: Patch, id: string): string => placeName(patch.modules, id);

/** A jumper that lets a knob reach further. */
const jumperIdeas = (patch: Patch, jumpers: readonly JumperSetting[]): Idea[] =>
  jumpers.map((j) => ({
    text: `Set ${j.at} to ${String(j.value)}`,
    edits: editsOf({ settings: [], jumpers: [j] }),
    reachOnly: true,
  }));

/** One more stage in front of a destination, by what it does; what it starts with changes nothing. */
const STAGES = [
  ['offset', {}, 'Add a scale and offset'],
  ['offset', { maxAmount: 4, lowVolts: -12, highVolts: 12 }, 'Add a scale and offset with a wider range'],
] as const;

function stageIdeas(patch: Patch, targets: readonly Target[]): Idea[] {
  const places = [...new Set(targetSockets(targets))].slice(0, 4);
  return STAGES.flatMap(([kind, params, text]) =>
    places.flatMap((at): Idea[] => {
      const made = insertStage(patch, at, kind);
      if (!made) return [];
      const set = Object.entries({ amount: 1, volts: 0, ...params }).sort(([a], [b]) => order(a) - order(b));
      const edits = set.map(([param, value]): Edit => ({ do: 'set', module: made.id, param, value }));
      return [{ text: `${text} before ${labelOf(patch, idOf(at))}`, edits: [...made.edits, ...edits] }];
    }),
  );
}

/** Limits before what must lie inside them. */
const order = (name: string): number => (['maxAmount', 'lowVolts', 'highVolts'].includes(name) ? 0 : 1);

const briefVolts = (v: ParamValue | undefined): string => showNumber(Number(v), 1).replace(/\.0$/, '');

/** A source that gives more. */
function sourceIdeas(patch: Patch, targets: readonly Target[]): Idea[] {
  const graph = buildGraph(patch);
  const behind = modulesBehind(graph, targets);
  return graph.modules
    .filter(
      (m) =>
        behind.has(m.index) &&
        m.kind.category === 'source' &&
        m.kind.panel?.plays === undefined &&
        isSetup(m.kind, 'lowVolts'),
    )
    .flatMap((m): Idea[] => {
      const locked = patch.modules[m.index]?.locked ?? [];
      if (locked.includes('lowVolts') || locked.includes('highVolts')) return [];
      return (
        [
          [-5, 5],
          [0, 8],
          [0, 10],
          [-10, 10],
        ] as const
      )
        .filter(([lo, hi]) => m.params.lowVolts !== lo || m.params.highVolts !== hi)
        .map(([low, high]) => ({
          text: `Use a ${showNumber(low, 0)} to ${showNumber(high, 0)} V source instead of ${m.label}’s ${briefVolts(m.params.lowVolts)} to ${briefVolts(m.params.highVolts)} V`,
          edits: [
            { do: 'set', module: m.id, param: 'lowVolts', value: Math.min(low, -12) },
            { do: 'set', module: m.id, param: 'highVolts', value: high },
            { do: 'set', module: m.id, param: 'lowVolts', value: low },
          ],
        }));
    });
}

/** What a hand then sets. */
const told = ({ settings }: Solution): string =>
  settings.length === 0 ? '' : `, then ${settings.map((s) => `${s.at} to ${showNumber(s.value, 3)}`).join(', ')}`;

/** The smallest change with which the targets can be met, asked for by solving again; null where none of these helps. */
export function suggestionOf(
  patch: Patch,
  targets: readonly Target[],
  { limits, jumpers }: { readonly limits: readonly Limit[]; readonly jumpers: readonly JumperSetting[] },
  ask: Ask,
): Suggestion | null {
  const ideas = [...jumperIdeas(patch, jumpers), ...stageIdeas(patch, targets), ...sourceIdeas(patch, targets)];
  for (const { text, edits, reachOnly = false } of ideas.slice(0, MOST_IDEAS)) {
    const changed = applyEdits(patch, edits);
    const [best] = ask(changed);
    // A wider jumper is none where the settings fit the present one.
    if (!best || (reachOnly && fits(patch, best))) continue;
    const why = limits.map((l) => `${l.at} is short by ${showNumber(l.short, 2)}`).join(', ');
    return { text: `${text}${told(best)}${why ? `: ${why}` : ''}.`, edits: [...edits, ...editsOf(best)] };
  }
  return null;
}

const MOST_IDEAS = 14;

/** The knobs that a hand turns: no other lock is ever taken off. */
const handKnobs = (m: ModuleDoc): ReadonlySet<string> => new Set(knobsIn(m).map((k) => k.name));

/** The lock that alone stands in the way, if one does. */
export function lockOf(patch: Patch, targets: readonly Target[], ask: Ask): Suggestion | null {
  const behind = modulesBehind(buildGraph(patch), targets);
  const locks = patch.modules.flatMap((m, i) =>
    behind.has(i)
      ? (m.locked ?? []).filter((param) => handKnobs(m).has(param)).map((param) => ({ module: m.id, param }))
      : [],
  );
  for (const { module, param } of locks) {
    const open = applyEdits(patch, [{ do: 'lock', module, param, locked: false }]);
    if (ask(open).length > 0) return { text: `The lock on ${module}.${param} prevents this. Unlock it.`, edits: [] };
  }
  if (locks.length < 2) return null;
  const open = applyEdits(
    patch,
    locks.map((l): Edit => ({ do: 'lock', ...l, locked: false })),
  );
  if (ask(open).length === 0) return null;
  const names = locks.map((l) => socketAt(l.module, l.param)).join(', ');
  return { text: `The locks on ${names} together prevent this. Unlock them.`, edits: [] };
}
