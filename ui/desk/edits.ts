import { applyEdits, stateOf } from '@/core';
import type { ModuleDoc, Normal, ParamValue, Patch, Target } from '@/core';

/** Edits of the desk as pure functions from patch to patch. */

export function setParam(patch: Patch, module: string, param: string, value: ParamValue | undefined): Patch {
  return applyEdits(patch, [{ do: 'set', module, param, value }]);
}

/** Moves what an input gets: from an output, or from nothing. */
export function connect(patch: Patch, to: string, from: string | null): Patch {
  return applyEdits(patch, [from === null ? { do: 'unplug', to } : { do: 'plug', cable: { from, to } }]);
}

export const setNormal = (patch: Patch, to: string, normal: Normal | null): Patch =>
  applyEdits(patch, [{ do: 'normal', to, normal }]);

/** How an input loads, or an output gives way; null for what is usual. */
export function setOhms(
  patch: Patch,
  id: string,
  side: 'inputOhms' | 'outputOhms',
  name: string,
  ohms: number | null,
): Patch {
  const change = (m: ModuleDoc): ModuleDoc => {
    const { [side]: given = {}, ...rest } = m;
    const { [name]: _old, ...others } = given;
    const now = ohms === null ? others : { ...others, [name]: ohms };
    return Object.keys(now).length === 0 ? rest : { ...rest, [side]: now };
  };
  return { ...patch, modules: patch.modules.map((m) => (m.id === id ? change(m) : m)) };
}

export const setTarget = (patch: Patch, at: string, target: Target | null): Patch =>
  applyEdits(patch, [{ do: 'target', at, target }]);

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

/** Keeps a finding from being said, with the reason; or lets it be said again. */
export function dismiss(patch: Patch, code: string, at: string, reason: string): Patch {
  const others = patch.dismissed.filter((d) => d.code !== code || d.at !== at);
  return { ...patch, dismissed: [...others, { code, at, reason }] };
}

export const bringBack = (patch: Patch, code: string, at: string): Patch => ({
  ...patch,
  dismissed: patch.dismissed.filter((d) => d.code !== code || d.at !== at),
});

/** Keeps the patch as it is now under a name; a name that is taken gets the new state. */
export function keepVariant(patch: Patch, name: string): Patch {
  const kept = { name, ...stateOf(patch) };
  const at = patch.variants.findIndex((v) => v.name === name);
  const variants = at < 0 ? [...patch.variants, kept] : patch.variants.map((v, i) => (i === at ? kept : v));
  return { ...patch, variants };
}

export const dropVariant = (patch: Patch, name: string): Patch => ({
  ...patch,
  variants: patch.variants.filter((v) => v.name !== name),
});
