import { allKinds, applyEdits, completeParams, freeId, kindNamed } from '@/core';
import type { Edit, ModuleDoc, ParamValue, Patch } from '@/core';

/** Edits of the desk as pure functions from patch to patch. */

export function setParam(patch: Patch, module: string, param: string, value: ParamValue | undefined): Patch {
  return applyEdits(patch, [{ op: 'set-param', module, param, value }]);
}

/** The first signal input of a kind (or first of all), and its first output: what a stage is joined in by. */
function throughSockets(kindName: string): { input: string; output: string } | null {
  const kind = kindNamed(kindName);
  if (!kind) return null;
  const params = completeParams(kind);
  const inputs = kind.inputs(params);
  const input = (inputs.find((s) => s.role === 'signal') ?? inputs[0])?.name;
  const output = kind.outputs(params)[0];
  return input && output ? { input, output } : null;
}

/** A new amplifier passes its signal until something opens and closes it; a new inverter or lag needs nothing. */
function startParams(kind: string): ModuleDoc['params'] | undefined {
  if (kind === 'vca') return { bias: 5 };
  if (kind === 'attenuverter') return { amount: 1 };
  if (kind === 'slew') return { rise: 0.1, fall: 0.1 };
  return undefined;
}

function newModule(patch: Patch, kindName: string): ModuleDoc {
  const kind = allKinds.find((k) => k.name === kindName);
  const params = startParams(kindName);
  const taken = patch.modules.filter((m) => m.kind === kindName).length;
  const label = taken === 0 ? (kind?.title ?? kindName) : `${kind?.title ?? kindName} ${taken + 1}`;
  return { id: freeId(patch, kindName.toLowerCase()), kind: kindName, label, ...(params && { params }) };
}

/** Puts a new stage into the cable that ends at `socket`. */
export function insertStage(patch: Patch, socket: string, kindName: string): { patch: Patch; id: string } | null {
  const through = throughSockets(kindName);
  const cable = patch.cables.find((c) => c.to === socket);
  if (!through) return null;
  const stage = newModule(patch, kindName);
  const before = socket.split('.')[0];
  const edits: Edit[] = [
    { op: 'add-module', module: stage, ...(before !== undefined && { before }) },
    ...(cable ? [{ op: 'plug', cable: { from: cable.from, to: `${stage.id}.${through.input}` } } as const] : []),
    { op: 'plug', cable: { from: `${stage.id}.${through.output}`, to: socket } },
  ];
  return { patch: applyEdits(patch, edits), id: stage.id };
}

/** Takes a stage out and closes the gap: what fed it feeds what it fed. */
export function removeStage(patch: Patch, id: string): Patch {
  const kindName = patch.modules.find((m) => m.id === id)?.kind ?? '';
  const through = throughSockets(kindName);
  const feed = through && patch.cables.find((c) => c.to === `${id}.${through.input}`)?.from;
  const fed = patch.cables.filter((c) => c.from.startsWith(`${id}.`) && !c.to.startsWith(`${id}.`));
  const joins: Edit[] =
    feed && !feed.startsWith(`${id}.`) ? fed.map((c) => ({ op: 'plug', cable: { from: feed, to: c.to } })) : [];
  return applyEdits(patch, [{ op: 'remove-module', id }, ...joins]);
}

export function addModule(patch: Patch, kindName: string): { patch: Patch; id: string } {
  const added = newModule(patch, kindName);
  return { patch: applyEdits(patch, [{ op: 'add-module', module: added }]), id: added.id };
}

/** Moves what an input gets: from an output, or from nothing. */
export function connect(patch: Patch, to: string, from: string | null): Patch {
  return applyEdits(patch, [from === null ? { op: 'unplug', to } : { op: 'plug', cable: { from, to } }]);
}

export function togglePin(patch: Patch, at: string): Patch {
  const pinned = patch.probes.some((p) => p.at === at);
  return { ...patch, probes: pinned ? patch.probes.filter((p) => p.at !== at) : [...patch.probes, { at }] };
}

export function toggleLock(patch: Patch, module: string, param: string): Patch {
  const change = (m: ModuleDoc): ModuleDoc => {
    const locked = m.locked ?? [];
    return { ...m, locked: locked.includes(param) ? locked.filter((p) => p !== param) : [...locked, param] };
  };
  return { ...patch, modules: patch.modules.map((m) => (m.id === module ? change(m) : m)) };
}

export function relabel(patch: Patch, module: string, label: string): Patch {
  return { ...patch, modules: patch.modules.map((m) => (m.id === module ? { ...m, label } : m)) };
}
