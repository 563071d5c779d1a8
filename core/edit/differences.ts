import { inSentence, optionLabel, paramLabel } from '../kinds/knobs';
import { kindNamed, kindTitle } from '../kinds';
import type { ParamSpec, ParamValue, ParamValues } from '../kinds/params';
import { scaleText } from '../units/scales';
import { showNumber, showSeconds, showVolts } from '../units/show';
import { applyEdits } from './edit';
import { idOf } from '../document/sockets';
import type { Edit } from './edit';
import { paramFaults } from '../document/paramFields';
import { completeParams } from '../document/params';
import { blank } from '../document/parse';
import { knobPlace, placeName } from '../document/names';
import { targetText } from '../document/targetText';
import { SETTING_LABELS } from '../document/settingLabels';
import type { Hand, ModuleDoc, Normal, Patch, PatchState, Settings, Target } from '../document/types';

/** One place where two states of a patch differ. */
export interface Difference {
  /** What differs: `Trim gain`. */
  readonly what: string;
  readonly here: string;
  readonly there: string;
  /** The module that it is about, if it is one's. */
  readonly module: string | null;
  /** What makes this place here as it is there. */
  readonly edits: readonly Edit[];
}

const NOTHING = 'nothing';
const titleOf = (m: ModuleDoc): string => m.label ?? kindNamed(m.kind)?.title ?? m.id;
const differs = (a: unknown, b: unknown): boolean => JSON.stringify(a) !== JSON.stringify(b);

function shownValue(value: ParamValue | undefined, spec: ParamSpec | undefined): string {
  if (spec?.type === 'choice' && typeof value === 'string') return inSentence(optionLabel(spec, value));
  if (spec?.type === 'scale') return scaleText(value as string | readonly number[]);
  if (typeof value === 'number') return showNumber(value, 4).replace(/\.?0+$/, '');
  if (Array.isArray(value)) return `${value.length} entries`;
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  return value === null || value === undefined ? 'none' : String(value);
}

/** A module without its parameters and name: what only changes all at once. */
function rest({ params: _params, label: _label, ...m }: ModuleDoc): Omit<ModuleDoc, 'params' | 'label'> {
  return m;
}

function moduleDifferences(a: ModuleDoc, b: ModuleDoc): Difference[] {
  const base = { module: a.id };
  if (differs(rest(a), rest(b))) {
    const said = (m: ModuleDoc): string => (a.kind === b.kind ? 'other hardware options' : kindTitle(m.kind));
    const edits: Edit[] = [{ do: 'replace', module: b }];
    return [{ ...base, what: titleOf(a), here: said(a), there: said(b), edits }];
  }
  const kind = kindNamed(a.kind);
  const [pa, pb] = kind ? [completeParams(kind, a.params), completeParams(kind, b.params)] : [{}, {}];
  const set = Object.keys(pb).filter((name) => differs(pa[name], pb[name]));
  const params = set.map((name): Difference => ({
    ...base,
    what: `${titleOf(a)} ${inSentence(paramLabel(name, kind?.params[name]))}`,
    here: shownValue(pa[name], kind?.params[name]),
    there: shownValue(pb[name], kind?.params[name]),
    edits: [{ do: 'set', module: a.id, param: name, value: b.params?.[name] }],
  }));
  if (!params.every((d) => standsAlone(a, d))) {
    // A span and a knob inside it cannot change one by one: all settings go over together.
    const { params: _here, ...bare } = a;
    const changed = b.params ? { ...bare, params: b.params } : bare;
    const said = (all: ParamValues): string =>
      set
        .map((name) => `${paramLabel(name, kind?.params[name])} ${shownValue(all[name], kind?.params[name])}`)
        .join(', ');
    const together: Difference = {
      ...base,
      what: `${titleOf(a)}, linked settings`,
      here: said(pa),
      there: said(pb),
      edits: [{ do: 'replace', module: changed }],
    };
    params.splice(0, params.length, together);
  }
  if (a.label === b.label) return params;
  const { label: _old, ...unnamed } = a;
  const changed = b.label === undefined ? unnamed : { ...a, label: b.label };
  const edits: Edit[] = [{ do: 'replace', module: changed }];
  return [{ ...base, what: `Name of ${titleOf(a)}`, here: titleOf(a), there: titleOf(b), edits }, ...params];
}

/** Whether one parameter can be set by itself to what is there, inside the limits that the others set. */
function standsAlone(m: ModuleDoc, { edits: [edit] }: Difference): boolean {
  if (edit?.do !== 'set') return false;
  const alone: Patch = { ...blank, modules: [m] };
  const after = applyEdits(alone, [edit]).modules[0];
  const kind = kindNamed(m.kind);
  if (!after || !kind) return false;
  const others = Object.keys(after.params ?? {}).filter((name) => name !== edit.param);
  return (
    paramFaults(kind, after.params ?? {}).length === 0 &&
    !differs(after.params?.[edit.param], edit.value) &&
    others.every((name) => !differs(after.params?.[name], m.params?.[name]))
  );
}

/** The cables that go with a module which only one side has. */
const cablesAt = ({ cables }: PatchState, id: string): Edit[] =>
  cables.filter((c) => idOf(c.from) === id || idOf(c.to) === id).map((cable) => ({ do: 'plug', cable }));

function modulesOfOne(a: PatchState, b: PatchState): Difference[] {
  const [inA, inB] = [a, b].map((s) => new Set(s.modules.map((m) => m.id))) as [Set<string>, Set<string>];
  const gone = a.modules
    .filter((m) => !inB.has(m.id))
    .map((m): Difference => ({
      module: m.id,
      what: titleOf(m),
      here: kindTitle(m.kind),
      there: NOTHING,
      edits: [{ do: 'remove', id: m.id }, ...rewired(b, (id) => inA.has(id))],
    }));
  const come = b.modules
    .filter((m) => !inA.has(m.id))
    .map((m): Difference => ({
      module: null,
      what: titleOf(m),
      here: NOTHING,
      there: kindTitle(m.kind),
      edits: [{ do: 'add', module: m }, ...cablesAt(b, m.id)],
    }));
  return [...gone, ...come];

  /** Inputs that the module which goes had fed, as they are fed over there. */
  function rewired(there: PatchState, known: (id: string) => boolean): Edit[] {
    const fed = new Set(a.cables.filter((c) => !inB.has(idOf(c.from))).map((c) => c.to));
    return there.cables
      .filter((c) => fed.has(c.to) && known(idOf(c.from)))
      .map((cable): Edit => ({ do: 'plug', cable }));
  }
}

function cableDifferences(a: PatchState, b: PatchState): Difference[] {
  const names = named(a, b);
  const name = (at: string | undefined): string => (at === undefined ? NOTHING : placeName(names, at));
  const shared = new Set(a.modules.map((m) => m.id).filter((id) => b.modules.some((m) => m.id === id)));
  const [fromA, fromB] = [a, b].map(
    (s) => new Map(s.cables.filter((c) => shared.has(idOf(c.to))).map((c) => [c.to, c.from] as const)),
  ) as [Map<string, string>, Map<string, string>];
  return [...new Set([...fromA.keys(), ...fromB.keys()])]
    .filter((to) => fromA.get(to) !== fromB.get(to))
    .filter((to) => [fromA.get(to), fromB.get(to)].every((from) => from === undefined || shared.has(idOf(from))))
    .map((to): Difference => {
      const from = fromB.get(to);
      const edits: Edit[] = [from === undefined ? { do: 'unplug', to } : { do: 'plug', cable: { from, to } }];
      return {
        module: idOf(to),
        what: `Cable into ${name(to)}`,
        here: name(fromA.get(to)),
        there: name(from),
        edits,
      };
    });
}

/** The modules of both states, so that all places can be named. */
const named = (a: PatchState, b: PatchState): readonly ModuleDoc[] => [
  ...a.modules,
  ...b.modules.filter((m) => a.modules.every((x) => x.id !== m.id)),
];

/** Differences between two lists of which each entry has a place of its own. */
function placed<T>(
  a: readonly T[],
  b: readonly T[],
  place: (x: T) => string,
  what: (at: string) => string,
  show: (x: T) => string,
  edit: (at: string, x: T | null) => Edit,
): Difference[] {
  const [inA, inB] = [new Map(a.map((x) => [place(x), x])), new Map(b.map((x) => [place(x), x]))];
  const said = (x: T | undefined): string => (x === undefined ? NOTHING : show(x));
  return [...new Set([...inA.keys(), ...inB.keys()])]
    .filter((at) => differs(inA.get(at), inB.get(at)))
    .map((at) => ({
      module: idOf(at),
      what: what(at),
      here: said(inA.get(at)),
      there: said(inB.get(at)),
      edits: [edit(at, inB.get(at) ?? null)],
    }));
}

const showNormal = (names: readonly ModuleDoc[], n: Normal): string =>
  'volts' in n ? showVolts(n.volts) : `${placeName(names, n.from)}${n.brokenBy ? ', broken at its source' : ''}`;

const showHand = ({ points, loop }: Hand): string =>
  `${points.length} ${points.length === 1 ? 'point' : 'points'}, ${showSeconds(points.at(-1)?.t ?? 0)}${loop ? ', looped' : ''}`;

/** From a place as it is shown: `tone.cutoff`, or `tone.cutoff (mean)` for one of several there. */
function targetEdit(place: string, target: Target | null): Edit {
  const [at = '', id] = place.replace(')', '').split(' (');
  return { do: 'target', at, ...(id !== undefined && { id }), target };
}

/**
 * Where two states of a patch differ, one by one.
 *
 * @param a the state that edits are for.
 * @param b the state that they lead to.
 * @returns each place with what it is in both; all edits together make `a` hold what `b` holds.
 */
export function differencesOf(a: PatchState, b: PatchState): Difference[] {
  const settings = (Object.keys(b.settings) as (keyof Settings)[]).filter((k) => a.settings[k] !== b.settings[k]);
  const names = named(a, b);
  const both = a.modules.flatMap((m) => b.modules.filter((x) => x.id === m.id).map((x) => [m, x] as const));
  return [
    ...modulesOfOne(a, b),
    ...both.flatMap(([m, x]) => moduleDifferences(m, x)),
    ...cableDifferences(a, b),
    ...placed(
      a.normals,
      b.normals,
      (n) => n.to,
      (to) => `Normal of ${placeName(names, to)}`,
      (n) => showNormal(names, n),
      (to, normal): Edit => ({ do: 'normal', to, normal }),
    ),
    ...placed(
      a.targets,
      b.targets,
      (t) => (t.id === undefined ? t.at : `${t.at} (${t.id})`),
      (place) => `Target at ${placeName(names, place.split(' (')[0] ?? place)}`,
      (t) => targetText(names, t),
      (place, target): Edit => targetEdit(place, target),
    ),
    ...placed(
      a.hands,
      b.hands,
      (h) => h.at,
      (at) => `Automation of ${knobPlace(names, at)}`,
      showHand,
      (at, hand): Edit => ({ do: 'hand', at, hand }),
    ),
    ...placed(
      a.macros,
      b.macros,
      (m) => m.fader,
      (fader) => `Macro control ${placeName(names, fader)}`,
      (m) => m.rows.map((row) => placeName(names, row.end)).join(', '),
      (fader, macro): Edit => ({ do: 'macro', fader, macro }),
    ),
    ...settings.map((k): Difference => ({
      module: null,
      what: SETTING_LABELS[k],
      here: String(a.settings[k]),
      there: String(b.settings[k]),
      edits: [{ do: 'settings', settings: { [k]: b.settings[k] } }],
    })),
  ];
}

/** Applies one difference; a cable whose other end is missing is left out. */
export const differenceEdits = ({ edits }: Difference): Edit[] => [...edits, { do: 'tidy' }];
