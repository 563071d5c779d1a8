import { kindNamed } from '../kinds';
import type { ParamValue, ParamValues } from '../kinds/params';
import { completeParams } from './params';
import type { Cable, ModuleDoc, Normal, Patch, Settings, Target } from './types';

/** A change to a patch, as data: cures, the desk's edits and the solver all speak it. */
export type Edit =
  | {
      readonly do: 'set';
      readonly module: string;
      readonly param: string;
      readonly value: ParamValue | undefined;
    }
  | { readonly do: 'add'; readonly module: ModuleDoc; readonly before?: string }
  /** Puts other settings, or another kind, under the same id; cables stay where the sockets do. */
  | { readonly do: 'replace'; readonly module: ModuleDoc }
  | { readonly do: 'remove'; readonly id: string }
  | { readonly do: 'plug'; readonly cable: Cable }
  | { readonly do: 'unplug'; readonly to: string }
  | { readonly do: 'normal'; readonly to: string; readonly normal: Normal | null }
  | { readonly do: 'target'; readonly at: string; readonly target: Target | null }
  | { readonly do: 'settings'; readonly settings: Partial<Settings> };

export const idOf = (socket: string): string => socket.split('.')[0] ?? '';

/** Sets one parameter; those whose limits hang on it are brought inside them. */
function setParam(m: ModuleDoc, param: string, value: ParamValue | undefined): ModuleDoc {
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

function addModule(patch: Patch, module: ModuleDoc, before: string | undefined): Patch {
  const at = before === undefined ? -1 : patch.modules.findIndex((m) => m.id === before);
  const modules = [...patch.modules];
  modules.splice(at < 0 ? modules.length : at, 0, module);
  return { ...patch, modules };
}

/** Keeps of a patch's wiring only what passes a test of its sockets. */
function keepSockets(patch: Patch, stays: (socket: string, side: 'inputs' | 'outputs' | 'any') => boolean): Patch {
  const whole = (c: Cable): boolean => stays(c.from, 'outputs') && stays(c.to, 'inputs');
  const bypassed = patch.bypassed.map((b) => ({
    ...b,
    cables: b.cables.filter(whole),
  }));
  return {
    ...patch,
    cables: patch.cables.filter(whole),
    normals: patch.normals.filter((n) => stays(n.to, 'inputs') && (!('from' in n) || stays(n.from, 'any'))),
    targets: patch.targets.filter((t) => stays(t.at, 'any')),
    probes: patch.probes.filter((p) => stays(p.at, 'any')),
    bypassed: patch.bypassed.length > 0 ? bypassed : patch.bypassed,
  };
}

/** Takes a module away with all that hangs on it. */
function removeModule(patch: Patch, id: string): Patch {
  const stays = (socket: string): boolean => idOf(socket) !== id;
  return {
    ...keepSockets(patch, stays),
    modules: patch.modules.filter((m) => m.id !== id),
    order: patch.order.filter((x) => x !== id),
    dismissed: patch.dismissed.filter((d) => stays(d.at)),
    bypassed: patch.bypassed.filter((b) => b.module !== id),
  };
}

interface Sockets {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
}

function socketsOf(m: ModuleDoc): Sockets {
  const kind = kindNamed(m.kind);
  if (!kind) return { inputs: [], outputs: [] };
  const params = completeParams(kind, m.params);
  return { inputs: kind.inputs(params).map((s) => s.name), outputs: kind.outputs(params) };
}

/** Changes one module; what hung on a socket that it no longer has is taken off. */
function changeModule(patch: Patch, id: string, change: (m: ModuleDoc) => ModuleDoc): Patch {
  const before = patch.modules.find((m) => m.id === id);
  if (!before) return patch;
  const after = change(before);
  const changed = { ...patch, modules: patch.modules.map((m) => (m === before ? after : m)) };
  const [was, now] = [socketsOf(before), socketsOf(after)];
  const sides = ['inputs', 'outputs'] as const;
  if (sides.every((side) => was[side].every((name) => now[side].includes(name)))) return changed;
  return keepSockets(changed, (socket, side) => {
    const name = socket.split('.')[1] ?? '';
    return idOf(socket) !== id || sides.some((s) => (side === s || side === 'any') && now[s].includes(name));
  });
}

/** Keeps of a patch's wiring only what its modules have sockets for. */
export function keepReal(patch: Patch): Patch {
  const known = new Map(patch.modules.map((m) => [m.id, socketsOf(m)]));
  const has = (socket: string, side: 'inputs' | 'outputs'): boolean =>
    known.get(idOf(socket))?.[side].includes(socket.split('.')[1] ?? '') ?? false;
  return keepSockets(patch, (socket, side) =>
    side === 'any' ? has(socket, 'inputs') || has(socket, 'outputs') : has(socket, side),
  );
}

export function applyEdit(patch: Patch, edit: Edit): Patch {
  switch (edit.do) {
    case 'set':
      return changeModule(patch, edit.module, (m) => setParam(m, edit.param, edit.value));
    case 'add':
      return addModule(patch, edit.module, edit.before);
    case 'replace':
      return changeModule(patch, edit.module.id, () => edit.module);
    case 'remove':
      return removeModule(patch, edit.id);
    case 'plug': {
      const others = patch.cables.filter((c) => c.to !== edit.cable.to);
      return { ...patch, cables: [...others, edit.cable] };
    }
    case 'unplug':
      return { ...patch, cables: patch.cables.filter((c) => c.to !== edit.to) };
    case 'normal': {
      const others = patch.normals.filter((n) => n.to !== edit.to);
      return { ...patch, normals: edit.normal ? [...others, edit.normal] : others };
    }
    case 'target': {
      const others = patch.targets.filter((t) => t.at !== edit.at);
      return { ...patch, targets: edit.target ? [...others, edit.target] : others };
    }
    case 'settings':
      return { ...patch, settings: { ...patch.settings, ...edit.settings } };
  }
}

export const applyEdits = (patch: Patch, edits: readonly Edit[]): Patch => edits.reduce(applyEdit, patch);

/** An id that is free: `trim`, `trim2`, `trim3`. */
export function freeId(patch: Pick<Patch, 'modules'>, wanted: string): string {
  const taken = new Set(patch.modules.map((m) => m.id));
  const base = wanted.replace(/[^a-z0-9_-]/g, '').slice(0, 28) || 'm';
  if (!taken.has(base)) return base;
  for (let n = 2; ; n++) if (!taken.has(`${base}${n}`)) return `${base}${n}`;
}
