import { any, anyObject, byDefault, choice, list, number, optional, record, text } from '../document/fields';
import type { ValueOf } from '../document/fields';
import { documentFields } from '../document/depth';
import { LIMITS } from '../document/limits';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import { own, Reader, shown } from '../document/reader';
import { readDeclaredFields } from '../document/readField';
import { documentSchema } from '../document/schema';
import type { Schema } from '../document/schema';
import { idOf, nameOf } from '../document/sockets';
import { stateOf } from '../document/state';
import type { Json, Patch, PatchError, Result } from '../document/types';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { kindNamed } from '../kinds';
import type { ParamValue } from '../kinds/params';
import { FIGURES } from './figures';

export const WALKTHROUGH_LIMITS = { steps: 60, set: 12, pins: 4, text: 600, about: 400, seconds: 20 } as const;

/** What is done in the editor itself at a step; the tour has such steps. */
export const TASKS = ['target', 'solve', 'issues', 'sheet', 'listen'] as const;

const place = text(100, { least: 1 });
const figureField = { at: place, figure: choice(FIGURES) };

const stepField = record(
  {
    /** What happens, or what to look at. */
    text: text(WALKTHROUGH_LIMITS.text, { least: 1, trimmed: true }),
    variant: optional(text(LIMITS.name, { least: 1 })),
    set: byDefault(list(record({ at: place, value: any }), WALKTHROUGH_LIMITS.set), []),
    seconds: byDefault(number(0, WALKTHROUGH_LIMITS.seconds), 2),
    at: optional(place),
    pins: optional(list(place, WALKTHROUGH_LIMITS.pins)),
    look: optional(record(figureField)),
    question: optional(record({ text: text(WALKTHROUGH_LIMITS.text, { least: 1, trimmed: true }), ...figureField })),
    task: optional(choice(TASKS)),
  },
  { says: 'a sentence, the knobs that move, and what to look at' },
);
export type WalkthroughStep = ValueOf<typeof stepField>;

const walkthroughField = record({
  title: text(LIMITS.name, { least: 1, trimmed: true }),
  about: byDefault(text(WALKTHROUGH_LIMITS.about, { trimmed: true }), ''),
  patch: anyObject,
  steps: list(stepField, WALKTHROUGH_LIMITS.steps, { least: { count: 1, words: 'must have at least one step' } }),
});

/** Steps over a patch, each with a sentence, knobs that move, and what to look at. */
export interface Walkthrough {
  readonly format: 'fenvo.walkthrough';
  readonly version: 1;
  readonly title: string;
  /** What one learns by it. */
  readonly about: string;
  readonly patch: Patch;
  readonly steps: readonly WalkthroughStep[];
}

/** The JSON Schema of a walkthrough. */
export const walkthroughSchema = (): Schema =>
  documentSchema('Fenvo walkthrough, version 1', 'fenvo.walkthrough', walkthroughField, {});

/** The edits that a step makes of the patch before it. */
export function stepEdits(before: Patch, { variant, set }: WalkthroughStep): Edit[] {
  const state = variant === undefined ? undefined : before.variants.find((v) => v.name === variant);
  return [...(state ? [{ do: 'state', state: stateOf(state) } as const] : []), ...set.map(settingEdit)];
}

/** The edit that one setting of a step makes. */
const settingEdit = ({ at, value }: WalkthroughStep['set'][number]): Edit => ({
  do: 'set',
  module: idOf(at),
  param: nameOf(at),
  value: value as ParamValue,
});

/** What a patch says of a setting; nothing where it stands at its default. */
export const settingAt = (patch: Patch, at: string): ParamValue | undefined =>
  patch.modules.find((m) => m.id === idOf(at))?.params?.[nameOf(at)];

/** The patch before the first step, and after each. */
export function patchesOf({ patch, steps }: Pick<Walkthrough, 'patch' | 'steps'>): readonly Patch[] {
  const patches = [patch];
  for (const step of steps) {
    const before = patches.at(-1) as Patch;
    patches.push(applyEdits(before, stepEdits(before, step)));
  }
  return patches;
}

/** Faults of a step in the patch that it works on; what it leads to is read as the document of a patch. */
function checkStep(r: Reader, before: Patch, step: WalkthroughStep, path: string): Patch {
  if (step.variant !== undefined && !before.variants.some((v) => v.name === step.variant))
    r.fail(`${path}.variant`, `there is no variant ${shown(step.variant)}`);
  const went = applyEdits(before, stepEdits(before, { ...step, set: [] }));
  const after = step.set.reduce((patch, one, i) => checkSet(r, patch, one, `${path}.set[${i}]`), went);
  const { modules, wiring } = buildGraph(after);
  const sockets = new Set(modules.flatMap((m) => [...m.inputs, ...m.outputs].map((s) => s.socket)));
  const there = (socket: string | undefined, where: string): void => {
    if (socket !== undefined && !sockets.has(socket)) r.fail(where, `there is no socket ${shown(socket)}`);
  };
  if (step.at !== undefined && !wiring.wires.some((w) => w.to === step.at))
    r.fail(`${path}.at`, `must be an input that something arrives at, got ${shown(step.at)}`);
  step.pins?.forEach((pin, i) => there(pin, `${path}.pins[${i}]`));
  there(step.look?.at, `${path}.look.at`);
  there(step.question?.at, `${path}.question.at`);
  return after;
}

function checkSet(r: Reader, patch: Patch, one: WalkthroughStep['set'][number], path: string): Patch {
  const done = settled(patch, one);
  if (!done.ok) r.fail(`${path}.${done.errors.path}`, done.errors.message);
  return done.ok ? done.value : patch;
}

/** What one setting of a step makes of a patch. @returns the fault, at `at` or `value`, where it is none of the patch. */
export function settled(patch: Patch, one: WalkthroughStep['set'][number]): Result<Patch, PatchError> {
  const { at, value } = one;
  const refused = (path: string, message: string) => ({ ok: false, errors: { path, message } }) as const;
  const m = patch.modules.find((x) => x.id === idOf(at));
  const params = m && kindNamed(m.kind)?.params;
  if (!params) return refused('at', `there is no module ${shown(idOf(at))}`);
  if (!Object.hasOwn(params, nameOf(at))) {
    const names = Object.keys(params).join(', ');
    return refused('at', `${shown(nameOf(at))} is not a setting of ${m.id}; expected one of ${names}`);
  }
  const after = applyEdits(patch, [settingEdit(one)]);
  const read = parsePatch(printPatch({ ...after, variants: [] }));
  if (!read.ok) return refused('value', read.errors[0]?.message ?? 'is refused');
  // A knob that is set beyond its travel stands at its end.
  const set = settingAt(after, at);
  if (JSON.stringify(set) !== JSON.stringify(value))
    return refused('value', `is beyond its travel: ${shown(value)} would become ${shown(set)}`);
  return { ok: true, value: after };
}

/** Reads a walkthrough. @returns every fault with its place, `steps[3].set[0].value`, where it is refused. */
export function parseWalkthrough(json: unknown): Result<Walkthrough, PatchError[]> {
  const fields = documentFields(json, 'a walkthrough');
  if (!fields.ok) return fields;
  const r = new Reader();
  r.known(fields.value, '', ['format', 'version', ...Object.keys(walkthroughField.fields)]);
  r.oneOf(own(fields.value, 'format'), 'format', ['fenvo.walkthrough']);
  r.oneOf(own(fields.value, 'version'), 'version', [1]);
  return r.settle((): Walkthrough => {
    const { title, about, patch: document, steps } = readDeclaredFields(r, walkthroughField, fields.value, '');
    const read = parsePatch(document);
    if (!read.ok) for (const e of read.errors) r.fail(e.path ? `patch.${e.path}` : 'patch', e.message);
    const patch = read.ok ? read.value : (null as never);
    if (r.errors.length === 0) steps.reduce((before, step, i) => checkStep(r, before, step, `steps[${i}]`), patch);
    return { format: 'fenvo.walkthrough', version: 1, title, about, patch, steps };
  });
}

/** A walkthrough as its document. */
export const printWalkthrough = ({ patch, ...rest }: Walkthrough): { readonly [key: string]: Json } => ({
  ...(rest as unknown as Record<string, Json>),
  patch: printPatch(patch) as Json,
});
