import { allKinds, applyEdits, completeParams, freeId, idOf, kindNamed, parsePatch } from '@/core';
import type { Cable, Edit, InputSpec, Kind, ModuleDoc, ParamValues, Patch, Range, Strip } from '@/core';

/** What the desk does with whole stages, as pure functions from patch to patch. */

const socketName = (socket: string): string => socket.split('.')[1] ?? '';

interface Shape {
  readonly kind: Kind;
  readonly params: ParamValues;
  readonly inputs: readonly InputSpec[];
  readonly outputs: readonly string[];
}

function shapeOf(kindName: string, params: ModuleDoc['params'] = {}): Shape | null {
  const kind = kindNamed(kindName);
  if (!kind) return null;
  const all = completeParams(kind, params);
  return { kind, params: all, inputs: kind.inputs(all), outputs: kind.outputs(all) };
}

const shapeIn = (patch: Patch, id: string): Shape | null => {
  const m = patch.modules.find((x) => x.id === id);
  return m ? shapeOf(m.kind, m.params) : null;
};

/** The sockets that one signal passes a stage by: its first signal input (or first of all) and its first output. */
export function throughSockets(kindName: string): { input: string; output: string } | null {
  const shape = shapeOf(kindName);
  const input = (shape?.inputs.find((s) => s.role === 'signal') ?? shape?.inputs[0])?.name;
  const output = shape?.outputs[0];
  return input && output ? { input, output } : null;
}

/** A new amplifier passes its signal until something opens and closes it; a new inverter or lag needs nothing. */
function startParams(kind: string): ModuleDoc['params'] | undefined {
  if (kind === 'vca') return { bias: 5 };
  if (kind === 'attenuverter') return { amount: 1 };
  if (kind === 'slew') return { rise: 0.1, fall: 0.1 };
  return undefined;
}

export function newModule(patch: Patch, kindName: string, given?: ModuleDoc['params']): ModuleDoc {
  const kind = allKinds.find((k) => k.name === kindName);
  const params = given ?? startParams(kindName);
  const taken = patch.modules.filter((m) => m.kind === kindName).length;
  const label = taken === 0 ? (kind?.title ?? kindName) : `${kind?.title ?? kindName} ${taken + 1}`;
  return {
    id: freeId(patch, kindName.toLowerCase()),
    kind: kindName,
    label,
    ...(params && Object.keys(params).length > 0 && { params }),
  };
}

export interface Added {
  readonly patch: Patch;
  readonly id: string;
}

export function addModule(patch: Patch, kindName: string, params?: ModuleDoc['params']): Added {
  const added = newModule(patch, kindName, params);
  return { patch: applyEdits(patch, [{ do: 'add', module: added }]), id: added.id };
}

/** Puts a new stage into the cable that ends at `socket`. */
export function insertStage(patch: Patch, socket: string, kindName: string): Added | null {
  if (!throughSockets(kindName)) return null;
  const stage = newModule(patch, kindName);
  const added = applyEdits(patch, [{ do: 'add', module: stage, before: idOf(socket) }]);
  return { patch: plugBefore(added, stage.id, socket), id: stage.id };
}

/** A new source, or any module's first output, plugged into a socket. */
export function feed(patch: Patch, socket: string, kindName: string): Added | null {
  const output = shapeOf(kindName)?.outputs[0];
  if (!output) return null;
  const source = newModule(patch, kindName);
  const edits: Edit[] = [
    { do: 'add', module: source, before: idOf(socket) },
    { do: 'plug', cable: { from: `${source.id}.${output}`, to: socket } },
  ];
  return { patch: applyEdits(patch, edits), id: source.id };
}

/** The cable that a stage's main signal comes by: its first signal input that has one, else its first input. */
function mainCable(patch: Patch, id: string): Cable | undefined {
  const inputs = shapeIn(patch, id)?.inputs ?? [];
  const role = inputs.some((s) => s.role === 'signal') ? 'signal' : 'gate';
  const plugged = inputs
    .filter((s) => s.role === role)
    .map((s) => patch.cables.find((c) => c.to === `${id}.${s.name}` && idOf(c.from) !== id));
  return plugged.find((c) => c !== undefined);
}

/** Takes a stage out of its path and closes the gap: what fed it feeds what it fed. */
function takeOut(patch: Patch, id: string): { patch: Patch; cables: readonly Cable[] } {
  const main = mainCable(patch, id);
  const fed = patch.cables.filter((c) => idOf(c.from) === id && idOf(c.to) !== id);
  const cables = [...(main ? [main] : []), ...fed];
  const edits: Edit[] = [
    ...cables.map((c): Edit => ({ do: 'unplug', to: c.to })),
    ...(main ? fed.map((c): Edit => ({ do: 'plug', cable: { from: main.from, to: c.to } })) : []),
  ];
  return { patch: applyEdits(patch, edits), cables };
}

/** Puts a stage that lies loose into the cable that ends at `socket`. */
function plugBefore(patch: Patch, id: string, socket: string, output?: string): Patch {
  const kind = patch.modules.find((m) => m.id === id)?.kind ?? '';
  const through = throughSockets(kind);
  if (!through) return patch;
  const before = patch.cables.find((c) => c.to === socket);
  const edits: Edit[] = [
    ...(before ? [{ do: 'plug', cable: { from: before.from, to: `${id}.${through.input}` } } as const] : []),
    { do: 'plug', cable: { from: `${id}.${output ?? through.output}`, to: socket } },
  ];
  return applyEdits(patch, edits);
}

export function removeStages(patch: Patch, ids: readonly string[]): Patch {
  return ids.reduce((p, id) => applyEdits(takeOut(p, id).patch, [{ do: 'remove', id }]), patch);
}

/** Moves a stage into the cable that ends at `socket`; the gap that it leaves is closed. */
export function moveStage(patch: Patch, id: string, socket: string): Patch {
  if (idOf(socket) === id) return patch;
  const out = takeOut(patch, id);
  if (out.cables.length === 0) return patch;
  const output = out.cables.find((c) => idOf(c.from) === id)?.from;
  const moved = plugBefore(out.patch, id, socket, output && socketName(output));
  const { modules } = moved;
  const stage = modules.find((m) => m.id === id);
  const others = modules.filter((m) => m !== stage);
  const at = others.findIndex((m) => m.id === idOf(socket));
  return stage ? { ...moved, modules: [...others.slice(0, at), stage, ...others.slice(at)] } : moved;
}

export const isBypassed = (patch: Patch, id: string): boolean => patch.bypassed.some((b) => b.module === id);

/** Takes stages out of their path for now, and remembers how they were plugged. */
export function bypassStages(patch: Patch, ids: readonly string[]): Patch {
  return ids.reduce((p, id) => {
    const out = takeOut(p, id);
    if (out.cables.length === 0 || isBypassed(p, id)) return p;
    return { ...out.patch, bypassed: [...p.bypassed, { module: id, cables: out.cables }] };
  }, patch);
}

/** Puts a bypassed stage back where it was, as far as those sockets are still there. */
export function putBack(patch: Patch, id: string): Patch {
  const kept = patch.bypassed.find((b) => b.module === id);
  if (!kept) return patch;
  const edits = kept.cables.map((cable): Edit => ({ do: 'plug', cable }));
  return { ...applyEdits(patch, edits), bypassed: patch.bypassed.filter((b) => b !== kept) };
}

/** Puts another kind in a stage's place. Cables stay: by socket name first, then by what the socket is for. */
export function replaceStage(patch: Patch, id: string, kindName: string): Patch {
  const old = patch.modules.find((m) => m.id === id);
  const [was, will] = [shapeIn(patch, id), shapeOf(kindName, startParams(kindName))];
  if (!old || !was || !will || old.kind === kindName) return patch;
  const inputs = mapped(
    was.inputs.map((s) => s.name),
    will.inputs.map((s) => s.name),
    (a, b) => was.inputs.find((s) => s.name === a)?.role === will.inputs.find((s) => s.name === b)?.role,
  );
  const outputs = mapped(was.outputs, will.outputs, () => true);
  const titled = old.label === undefined || old.label.startsWith(was.kind.title);
  const fresh = newModule(patch, kindName);
  const named = { id, kind: kindName, label: titled ? (fresh.label ?? kindName) : (old.label ?? id) };
  const start = startParams(kindName) ?? {};
  const stage = [{ ...start, ...sharedParams(old.params ?? {}, will) }, start]
    .map((params): ModuleDoc => ({ ...named, ...(Object.keys(params).length > 0 && { params }) }))
    .find(canBeRead);
  if (!stage) return patch;
  const rename = (c: Cable): Cable | null => {
    const from = idOf(c.from) === id ? outputs.get(socketName(c.from)) : socketName(c.from);
    const to = idOf(c.to) === id ? inputs.get(socketName(c.to)) : socketName(c.to);
    return from && to ? { from: `${idOf(c.from)}.${from}`, to: `${idOf(c.to)}.${to}` } : null;
  };
  const rewired = patch.cables.map(rename).filter((c) => c !== null);
  return { ...applyEdits(patch, [{ do: 'replace', module: stage }]), cables: rewired };
}

/** Pairs old sockets with new ones: the same name, then the same role, each taken once. */
function mapped(
  old: readonly string[],
  now: readonly string[],
  fits: (a: string, b: string) => boolean,
): Map<string, string> {
  const pairs = new Map<string, string>(old.filter((n) => now.includes(n)).map((n) => [n, n]));
  for (const name of old) {
    const taken = new Set(pairs.values());
    const free = now.find((n) => !taken.has(n) && fits(name, n));
    if (!pairs.has(name) && free) pairs.set(name, free);
  }
  return pairs;
}

/** What the new kind can take over of the old one's settings: numbers of the same name inside the new limits. */
function sharedParams(old: ParamValues, will: Shape): ParamValues {
  const kept = Object.entries(old).filter(([name, value]) => {
    const spec = will.kind.params[name];
    if (spec?.type !== 'number' || typeof value !== 'number') return false;
    const [min, max] = spec.limits?.(will.params) ?? [spec.min, spec.max];
    return value >= min && value <= max;
  });
  return Object.fromEntries(kept);
}

/** Settings that fit one by one may not fit together: a low limit above a high one. */
const canBeRead = (module: ModuleDoc): boolean =>
  parsePatch({ format: 'fenvo.patch', version: 1, modules: [module] }).ok;

/** Copies of stages, with what feeds them; between themselves they are joined as the first ones are. */
function copyStages(patch: Patch, ids: readonly string[]): { patch: Patch; names: ReadonlyMap<string, string> } {
  const names = new Map<string, string>();
  let modules = patch.modules;
  for (const id of ids) {
    const stage = patch.modules.find((m) => m.id === id);
    if (!stage) continue;
    const copy = freeId({ modules }, id.replace(/\d+$/, ''));
    names.set(id, copy);
    const { rack: _own, ...doc } = stage;
    modules = [...modules, { ...doc, id: copy, label: copyLabel(modules, stage.label ?? id) }];
  }
  const here = (socket: string): string => `${names.get(idOf(socket)) ?? idOf(socket)}.${socketName(socket)}`;
  const cables = patch.cables.filter((c) => names.has(idOf(c.to))).map((c) => ({ from: here(c.from), to: here(c.to) }));
  const normals = patch.normals
    .filter((n) => names.has(idOf(n.to)))
    .map((n) => ('from' in n ? { ...n, from: here(n.from), to: here(n.to) } : { ...n, to: here(n.to) }));
  const copied = { ...patch, modules, cables: [...patch.cables, ...cables], normals: [...patch.normals, ...normals] };
  return { patch: copied, names };
}

function copyLabel(modules: readonly ModuleDoc[], label: string): string {
  const base = label.replace(/ \d+$/, '').slice(0, 70);
  for (let n = 2; ; n++) if (!modules.some((m) => m.label === `${base} ${n}`)) return `${base} ${n}`;
}

/** Copies of loose stages, beside the first. */
export const duplicateStages = (patch: Patch, ids: readonly string[]): Patch => copyStages(patch, ids).patch;

const within = (v: number, [low, high]: Range): boolean => v >= low && v <= high;

/**
 * The stages of a strip once more, from the same source to another end.
 *
 * @param bound what arrives at the first end, volts; mirrored, the copy gives low + high − that.
 */
export function duplicateChain(patch: Patch, strip: Strip, to: string, mirrored: boolean, bound: Range): Patch {
  const stages = strip.frames.slice(0, -1).filter((f, i) => i > 0 || f.module.kind.room === 'between');
  const last = strip.frames.at(-2)?.output;
  if (!last) return patch;
  const { patch: copied, names } = copyStages(
    patch,
    stages.map((f) => f.module.id),
  );
  const from = `${names.get(idOf(last)) ?? idOf(last)}.${socketName(last)}`;
  const plugged = applyEdits(copied, [{ do: 'plug', cable: { from, to } }]);
  return mirrored ? mirror(plugged, from, to, bound) : plugged;
}

/** Turns what arrives at a socket over within its range: at its last scale and offset, or by a new one. */
function mirror(patch: Patch, from: string, to: string, [low, high]: Range): Patch {
  const last = patch.modules.find((m) => m.id === idOf(from));
  const own = last?.kind === 'offset' ? shapeOf('offset', last.params) : null;
  if (last && own && own.params.order === 'scaleThenShift') {
    const lift = low + high - Number(own.params.volts);
    if (within(lift, [Number(own.params.lowVolts), Number(own.params.highVolts)])) {
      return applyEdits(patch, [
        { do: 'set', module: last.id, param: 'amount', value: -Number(own.params.amount) || 0 },
        { do: 'set', module: last.id, param: 'volts', value: lift },
      ]);
    }
  }
  const lift = low + high;
  const reach = Math.max(5, Math.abs(lift));
  const params = { amount: -1, volts: lift, ...(reach > 5 && { lowVolts: -12, highVolts: 12 }) };
  const stage = { ...newModule(patch, 'offset', params), label: 'Mirror' };
  const added = applyEdits(patch, [{ do: 'add', module: stage, before: idOf(to) }]);
  return plugBefore(added, stage.id, to);
}
