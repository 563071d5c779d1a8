import { controlsWithout } from '../document/controls';
import { fittingTarget, hangsOn } from '../document/targets';
import { fittingHands } from '../document/hands';
import { fittingMacros } from '../document/macros';
import { completeParams } from '../document/params';
import { idOf, nameOf } from '../document/sockets';
import type { Cable, ModuleDoc, Patch } from '../document/types';
import { kindNamed } from '../kinds';
import type { ParamValue, ParamValues } from '../kinds/params';

/** Sets one parameter; those whose limits hang on it are brought inside them. */
export function setParam(m: ModuleDoc, param: string, value: ParamValue | undefined): ModuleDoc {
  const { [param]: _gone, ...rest } = m.params ?? {};
  return { ...m, params: withinLimits(m.kind, value === undefined ? rest : { ...rest, [param]: value }) };
}

function withinLimits(kindName: string, params: ParamValues): ParamValues {
  const kind = kindNamed(kindName);
  if (!kind) return params;
  const all = completeParams(kind, params);
  const clamped: Record<string, ParamValue> = { ...params };
  for (const [name, spec] of Object.entries(kind.params)) {
    if (spec.exists && !spec.exists(all)) delete clamped[name];
    else if (spec.type === 'number' && spec.limits) {
      const [min, max] = spec.limits(all);
      const now = Number(all[name]);
      if (now < min || now > max) clamped[name] = Math.min(max, Math.max(min, now));
    }
  }
  return clamped;
}

export function addModule(patch: Patch, module: ModuleDoc, before: string | undefined): Patch {
  const at = before === undefined ? -1 : patch.modules.findIndex((m) => m.id === before);
  const modules = [...patch.modules];
  modules.splice(at < 0 ? modules.length : at, 0, module);
  return { ...patch, modules };
}

/** Keeps of a patch's wiring only what passes a test of its sockets. */
function keepSockets(patch: Patch, stays: (socket: string, side: 'inputs' | 'outputs' | 'any') => boolean): Patch {
  const ids = new Set(patch.modules.map((m) => m.id));
  const whole = (c: Cable): boolean => stays(c.from, 'outputs') && stays(c.to, 'inputs');
  const bypassed = patch.bypassed.map((b) => ({
    ...b,
    cables: b.cables.filter(whole),
  }));
  return {
    ...patch,
    cables: patch.cables.filter(whole),
    normals: patch.normals.filter((n) => stays(n.to, 'inputs') && (!('from' in n) || stays(n.from, 'any'))),
    targets: patch.targets.filter((t) => {
      const { socket, module } = hangsOn(t);
      const has = module === undefined || ids.has(module);
      return has && stays(t.at, 'any') && (socket === undefined || stays(socket, 'any'));
    }),
    probes: patch.probes.filter((p) => stays(p.at, 'any')),
    hands: fittingHands(patch.hands, patch.modules),
    macros: fittingMacros(
      patch.macros,
      (id) => ids.has(id),
      (socket) => stays(socket, 'inputs') && ids.has(idOf(socket)),
    ),
    bypassed: patch.bypassed.length > 0 ? bypassed : patch.bypassed,
  };
}

/** Removes a module with all that refers to it. */
export function removeModule(patch: Patch, id: string): Patch {
  const stays = (socket: string): boolean => idOf(socket) !== id;
  return {
    ...keepSockets({ ...patch, modules: patch.modules.filter((m) => m.id !== id) }, stays),
    order: patch.order.filter((x) => x !== id),
    dismissed: patch.dismissed.filter((d) => stays(d.at)),
    bypassed: patch.bypassed.filter((b) => b.module !== id),
    controls: controlsWithout(patch.controls, id, patch.variants),
  };
}

interface Sockets {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
}

function socketNames(m: ModuleDoc): Sockets {
  const kind = kindNamed(m.kind);
  if (!kind) return { inputs: [], outputs: [] };
  const params = completeParams(kind, m.params);
  return { inputs: kind.inputs(params).map((s) => s.name), outputs: kind.outputs(params) };
}

/** Changes one module; what hung on a socket that it no longer has is taken off. */
export function changeModule(patch: Patch, id: string, change: (m: ModuleDoc) => ModuleDoc): Patch {
  const before = patch.modules.find((m) => m.id === id);
  if (!before) return patch;
  const after = change(before);
  const modules = patch.modules.map((m) => (m === before ? after : m));
  const fitting = patch.targets.map((t) => (idOf(t.at) === id ? fittingTarget(t, modules) : t));
  const same = fitting.every((t, i) => t === patch.targets[i]);
  const targets = same ? patch.targets : fitting.filter((t) => t !== null);
  const changed = { ...patch, modules, targets, hands: fittingHands(patch.hands, modules) };
  const [was, now] = [socketNames(before), socketNames(after)];
  const sides = ['inputs', 'outputs'] as const;
  if (sides.every((side) => was[side].every((name) => now[side].includes(name)))) return changed;
  return keepSockets(changed, (socket, side) => {
    const name = nameOf(socket);
    return idOf(socket) !== id || sides.some((s) => (side === s || side === 'any') && now[s].includes(name));
  });
}

/** Keeps of a patch's wiring only what its modules have sockets for. */
export function keepReal(patch: Patch): Patch {
  const known = new Map(patch.modules.map((m) => [m.id, socketNames(m)]));
  const has = (socket: string, side: 'inputs' | 'outputs'): boolean =>
    known.get(idOf(socket))?.[side].includes(nameOf(socket)) ?? false;
  return keepSockets(patch, (socket, side) =>
    side === 'any' ? has(socket, 'inputs') || has(socket, 'outputs') : has(socket, side),
  );
}

/** Puts a module before another in the list; loops are cut at the first that is listed. */
export function moveModule(patch: Patch, id: string, before: string): Patch {
  const stage = patch.modules.find((m) => m.id === id);
  const others = patch.modules.filter((m) => m !== stage);
  const at = others.findIndex((m) => m.id === before);
  if (!stage || at < 0) return patch;
  return { ...patch, modules: [...others.slice(0, at), stage, ...others.slice(at)] };
}

export function lockParam(m: ModuleDoc, param: string, locked: boolean): ModuleDoc {
  const others = (m.locked ?? []).filter((p) => p !== param);
  return { ...m, locked: locked ? [...others, param] : others };
}

/** The noise that each output adds, microvolts RMS; null for what is usual. */
export function setNoise({ noiseMicrovolts: _old, ...rest }: ModuleDoc, microvolts: number | null): ModuleDoc {
  return microvolts === null ? rest : { ...rest, noiseMicrovolts: microvolts };
}

/** How an input loads, or an output gives way; null for what is usual. */
export function setOhms(
  m: ModuleDoc,
  side: 'inputOhms' | 'outputOhms',
  socket: string,
  ohms: number | null,
): ModuleDoc {
  const { [side]: given = {}, ...rest } = m;
  const { [socket]: _old, ...others } = given;
  const now = ohms === null ? others : { ...others, [socket]: ohms };
  return Object.keys(now).length === 0 ? rest : { ...rest, [side]: now };
}
