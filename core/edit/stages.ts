import { completeParams } from '../document/params';
import { idOf, nameOf, socketAt } from '../document/sockets';
import type { Cable, ModuleDoc, Patch } from '../document/types';
import { kindNamed } from '../kinds';
import type { InputSpec, Kind } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { Edit } from './edit';
import { freeId } from './editSequence';
import { EditSequence } from './editSequence';

/** What is done with whole stages, as edits of the patch at hand. */

export interface Shape {
  readonly kind: Kind;
  readonly params: ParamValues;
  readonly inputs: readonly InputSpec[];
  readonly outputs: readonly string[];
}

export function shapeOf(kindName: string, params: ModuleDoc['params'] = {}): Shape | null {
  const kind = kindNamed(kindName);
  if (!kind) return null;
  const all = completeParams(kind, params);
  return { kind, params: all, inputs: kind.inputs(all), outputs: kind.outputs(all) };
}

export const shapeIn = (patch: Patch, id: string): Shape | null => {
  const m = patch.modules.find((x) => x.id === id);
  return m ? shapeOf(m.kind, m.params) : null;
};

/** The sockets that one signal passes a stage by: its first signal input (or first of all) and its first output. */
export function throughSockets(
  kindName: string,
  params?: ModuleDoc['params'],
): { readonly input: string; readonly output: string } | null {
  const shape = shapeOf(kindName, params);
  const input = (shape?.inputs.find((s) => s.role === 'signal') ?? shape?.inputs[0])?.name;
  const output = shape?.outputs[0];
  return input && output ? { input, output } : null;
}

/** A module with a free id and name, set as its kind starts in the editor. */
export function newModule(patch: Pick<Patch, 'modules'>, kindName: string, given?: ModuleDoc['params']): ModuleDoc {
  const kind = kindNamed(kindName);
  const params = given ?? kind?.panel?.starts;
  const taken = patch.modules.filter((m) => m.kind === kindName).length;
  const title = kind?.title ?? kindName;
  return {
    id: freeId(patch, kindName.toLowerCase()),
    kind: kindName,
    label: taken === 0 ? title : `${title} ${taken + 1}`,
    ...(params && Object.keys(params).length > 0 && { params }),
  };
}

/** Edits, and the module that they are about. */
export interface Added {
  readonly edits: readonly Edit[];
  readonly id: string;
}

export function addModule(patch: Patch, kindName: string, params?: ModuleDoc['params']): Added {
  const added = newModule(patch, kindName, params);
  return { edits: [{ do: 'add', module: added }], id: added.id };
}

/** Puts a new stage into the cable that ends at `socket`; null of a kind that no signal passes. */
export function insertStage(patch: Patch, socket: string, kindName: string): Added | null {
  if (!throughSockets(kindName)) return null;
  const added = newModule(patch, kindName);
  const work = new EditSequence(patch).do({ do: 'add', module: added, before: idOf(socket) });
  return { edits: work.do(...plugBefore(work.patch, added.id, socket)).edits, id: added.id };
}

/** Puts a new stage behind an output: it gets what the output gives, and all that the output fed gets its own. */
export function insertAfter(patch: Patch, output: string, kindName: string): Added | null {
  const through = throughSockets(kindName);
  if (!through) return null;
  const added = newModule(patch, kindName);
  const fed = patch.cables.filter((c) => c.from === output);
  const edits: Edit[] = [
    { do: 'add', module: added },
    ...fed.map(({ to }): Edit => ({ do: 'plug', cable: { from: socketAt(added.id, through.output), to } })),
    { do: 'plug', cable: { from: output, to: socketAt(added.id, through.input) } },
  ];
  return { edits, id: added.id };
}

/** A new source, or any module's first output, plugged into a socket. */
export function feed(patch: Patch, socket: string, kindName: string): Added | null {
  const output = shapeOf(kindName)?.outputs[0];
  if (!output) return null;
  const added = newModule(patch, kindName);
  const edits: Edit[] = [
    { do: 'add', module: added, before: idOf(socket) },
    { do: 'plug', cable: { from: socketAt(added.id, output), to: socket } },
  ];
  return { edits, id: added.id };
}

/** Moves what an input gets: from an output, or from nothing. */
export const connect = (to: string, from: string | null): Edit =>
  from === null ? { do: 'unplug', to } : { do: 'plug', cable: { from, to } };

/** The cable that a stage's main signal comes by: its first signal input that has one, else its first input. */
function mainCable(patch: Patch, id: string): Cable | undefined {
  const inputs = shapeIn(patch, id)?.inputs ?? [];
  const role = inputs.some((s) => s.role === 'signal') ? 'signal' : 'gate';
  const plugged = inputs
    .filter((s) => s.role === role)
    .map((s) => patch.cables.find((c) => c.to === socketAt(id, s.name) && idOf(c.from) !== id));
  return plugged.find((c) => c !== undefined);
}

/** Takes a stage out of its path and closes the gap: what fed it feeds what it fed. */
function takeOut(patch: Patch, id: string): { edits: readonly Edit[]; cables: readonly Cable[] } {
  const main = mainCable(patch, id);
  const fed = patch.cables.filter((c) => idOf(c.from) === id && idOf(c.to) !== id);
  const cables = [...(main ? [main] : []), ...fed];
  const edits: Edit[] = [
    ...cables.map((c): Edit => ({ do: 'unplug', to: c.to })),
    ...(main ? fed.map((c): Edit => ({ do: 'plug', cable: { from: main.from, to: c.to } })) : []),
  ];
  return { edits, cables };
}

/** Puts a stage that lies loose into the cable that ends at `socket`. */
export function plugBefore(patch: Patch, id: string, socket: string, output?: string): Edit[] {
  const through = throughSockets(patch.modules.find((m) => m.id === id)?.kind ?? '');
  if (!through) return [];
  const before = patch.cables.find((c) => c.to === socket);
  return [
    ...(before ? [connect(socketAt(id, through.input), before.from)] : []),
    connect(socket, socketAt(id, output ?? through.output)),
  ];
}

export function removeStages(patch: Patch, ids: readonly string[]): Edit[] {
  const work = new EditSequence(patch);
  for (const id of ids) work.do(...takeOut(work.patch, id).edits, { do: 'remove', id });
  return work.edits;
}

/** Moves a stage into the cable that ends at `socket`; the gap that it leaves is closed. */
export function moveStage(patch: Patch, id: string, socket: string): Edit[] {
  if (idOf(socket) === id) return [];
  const out = takeOut(patch, id);
  if (out.cables.length === 0) return [];
  const output = out.cables.find((c) => idOf(c.from) === id)?.from;
  const work = new EditSequence(patch).do(...out.edits);
  work.do(...plugBefore(work.patch, id, socket, output && nameOf(output)));
  return work.do({ do: 'move', id, before: idOf(socket) }).edits;
}

export const isBypassed = (patch: Patch, id: string): boolean => patch.bypassed.some((b) => b.module === id);

/** Takes stages out of their path for now, and remembers how they were plugged. */
export function bypassStages(patch: Patch, ids: readonly string[]): Edit[] {
  const work = new EditSequence(patch);
  for (const id of ids) {
    const { edits, cables } = takeOut(work.patch, id);
    if (cables.length > 0 && !isBypassed(work.patch, id)) work.do(...edits, { do: 'bypass', module: id, cables });
  }
  return work.edits;
}

/** Puts a bypassed stage back where it was, as far as those sockets are still there. */
export function putBack(patch: Patch, id: string): Edit[] {
  const kept = patch.bypassed.find((b) => b.module === id);
  if (!kept) return [];
  return [...kept.cables.map((cable): Edit => ({ do: 'plug', cable })), { do: 'bypass', module: id, cables: null }];
}
