import type { ParamValue } from '../kinds/params';
import type { Cable, ModuleDoc, Normal, Patch } from './types';

/** A change to a patch, as data: cures, the desk's edits and the solver all speak it. */
export type Edit =
  | {
      readonly op: 'set-param';
      readonly module: string;
      readonly param: string;
      readonly value: ParamValue | undefined;
    }
  | { readonly op: 'add-module'; readonly module: ModuleDoc; readonly before?: string }
  | { readonly op: 'remove-module'; readonly id: string }
  | { readonly op: 'plug'; readonly cable: Cable }
  | { readonly op: 'unplug'; readonly to: string }
  | { readonly op: 'set-normal'; readonly to: string; readonly normal: Normal | null };

const idOf = (socket: string): string => socket.split('.')[0] ?? '';

function setParam(m: ModuleDoc, param: string, value: ParamValue | undefined): ModuleDoc {
  const { [param]: _gone, ...rest } = m.params ?? {};
  return { ...m, params: value === undefined ? rest : { ...rest, [param]: value } };
}

function addModule(patch: Patch, module: ModuleDoc, before: string | undefined): Patch {
  const at = before === undefined ? -1 : patch.modules.findIndex((m) => m.id === before);
  const modules = [...patch.modules];
  modules.splice(at < 0 ? modules.length : at, 0, module);
  return { ...patch, modules };
}

/** Takes a module away with all that hangs on it. */
function removeModule(patch: Patch, id: string): Patch {
  const stays = (socket: string): boolean => idOf(socket) !== id;
  return {
    ...patch,
    modules: patch.modules.filter((m) => m.id !== id),
    cables: patch.cables.filter((c) => stays(c.from) && stays(c.to)),
    normals: patch.normals.filter((n) => stays(n.to) && (!('from' in n) || stays(n.from))),
    targets: patch.targets.filter((t) => stays(t.at)),
    probes: patch.probes.filter((p) => stays(p.at)),
    order: patch.order.filter((x) => x !== id),
    dismissed: patch.dismissed.filter((d) => stays(d.at)),
  };
}

export function applyEdit(patch: Patch, edit: Edit): Patch {
  switch (edit.op) {
    case 'set-param': {
      const set = (m: ModuleDoc): ModuleDoc => (m.id === edit.module ? setParam(m, edit.param, edit.value) : m);
      return { ...patch, modules: patch.modules.map(set) };
    }
    case 'add-module':
      return addModule(patch, edit.module, edit.before);
    case 'remove-module':
      return removeModule(patch, edit.id);
    case 'plug': {
      const others = patch.cables.filter((c) => c.to !== edit.cable.to);
      return { ...patch, cables: [...others, edit.cable] };
    }
    case 'unplug':
      return { ...patch, cables: patch.cables.filter((c) => c.to !== edit.to) };
    case 'set-normal': {
      const others = patch.normals.filter((n) => n.to !== edit.to);
      return { ...patch, normals: edit.normal ? [...others, edit.normal] : others };
    }
  }
}

export const applyEdits = (patch: Patch, edits: readonly Edit[]): Patch => edits.reduce(applyEdit, patch);

/** An id that is free: `trim`, `trim2`, `trim3`. */
export function freeId(patch: Patch, wanted: string): string {
  const taken = new Set(patch.modules.map((m) => m.id));
  const base = wanted.replace(/[^a-z0-9_-]/g, '').slice(0, 28) || 'm';
  if (!taken.has(base)) return base;
  for (let n = 2; ; n++) if (!taken.has(`${base}${n}`)) return `${base}${n}`;
}
