import type { ListKey } from '../document/state';
import { withMacro } from '../document/macros';
import { stateOf } from '../document/state';
import { isTarget } from '../document/targets';
import type {
  Cable,
  Dismissal,
  Hand,
  MacroDoc,
  ModuleDoc,
  Normal,
  Patch,
  PatchState,
  Settings,
  Target,
} from '../document/types';
import type { ParamValue } from '../kinds/params';
import {
  addModule,
  changeModule,
  keepReal,
  lockParam,
  moveModule,
  removeModule,
  setNoise,
  setOhms,
  setParam,
} from './modules';

/** Puts entries of a list in the place of others: what every other edit comes to, and what takes any of them back. */
type Splice = {
  [K in ListKey]: {
    readonly do: 'splice';
    readonly list: K;
    readonly at: number;
    readonly remove: number;
    readonly insert: Patch[K];
  };
}[ListKey];

/** A change to a patch, as data: the editor, its history, drafts, workers, cures and the solver all speak it. */
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
  | { readonly do: 'move'; readonly id: string; readonly before: string }
  | { readonly do: 'label'; readonly module: string; readonly label: string }
  | { readonly do: 'lock'; readonly module: string; readonly param: string; readonly locked: boolean }
  | {
      readonly do: 'ohms';
      readonly module: string;
      readonly side: 'inputOhms' | 'outputOhms';
      readonly socket: string;
      readonly ohms: number | null;
    }
  | { readonly do: 'noise'; readonly module: string; readonly microvolts: number | null }
  | { readonly do: 'plug'; readonly cable: Cable }
  | { readonly do: 'unplug'; readonly to: string }
  | { readonly do: 'normal'; readonly to: string; readonly normal: Normal | null }
  | { readonly do: 'bypass'; readonly module: string; readonly cables: readonly Cable[] | null }
  | { readonly do: 'target'; readonly at: string; readonly id?: string; readonly target: Target | null }
  /** A hand on a knob, or none. */
  | { readonly do: 'hand'; readonly at: string; readonly hand: Hand | null }
  /** One fader's ends and their stages, or none of it: the stages themselves are added and removed on their own. */
  | { readonly do: 'macro'; readonly fader: string; readonly macro: MacroDoc | null }
  /** The knob that a controller's control moves, or none. */
  | { readonly do: 'control'; readonly number: number; readonly at: string | null }
  | { readonly do: 'pin'; readonly at: string; readonly pinned: boolean }
  | { readonly do: 'dismiss'; readonly code: string; readonly at: string; readonly reason: string | null }
  | { readonly do: 'variant'; readonly name: string; readonly state: PatchState | null }
  | { readonly do: 'state'; readonly state: PatchState }
  | { readonly do: 'settings'; readonly settings: Partial<Settings> }
  | { readonly do: 'put'; readonly put: Partial<Pick<Patch, 'name' | 'notes' | 'settings' | 'extra'>> }
  | { readonly do: 'tidy' }
  | Splice;

/** A list with the entry of one place changed: put where it was, at the end where it was not, or taken out. */
function placed<T>(list: readonly T[], isIt: (x: T) => boolean, entry: T | null): readonly T[] {
  if (entry === null) return list.some(isIt) ? list.filter((x) => !isIt(x)) : list;
  return list.some(isIt) ? list.map((x) => (isIt(x) ? entry : x)) : [...list, entry];
}

/** The same with the entry at the end: what came last stands last. */
const atEnd = <T>(list: readonly T[], isIt: (x: T) => boolean, entry: T | null): readonly T[] =>
  entry === null ? placed(list, isIt, null) : [...list.filter((x) => !isIt(x)), entry];

/** Puts a kept state in place; what was pinned, dismissed or set aside stays where it still can. */
function withState(patch: Patch, state: PatchState): Patch {
  const ids = new Set(state.modules.map((m) => m.id));
  const gone = patch.modules.filter((m) => !ids.has(m.id));
  const cleared = gone.reduce<Patch>((p, m) => removeModule(p, m.id), { ...patch, bypassed: [] });
  return keepReal({ ...cleared, ...stateOf(state) });
}

function spliced(patch: Patch, { list, at, remove, insert }: Splice): Patch {
  const now: readonly unknown[] = patch[list];
  return { ...patch, [list]: [...now.slice(0, at), ...insert, ...now.slice(at + remove)] };
}

/**
 * Does one edit. Pure: the patch given stays as it is, and what the edit does not touch is the very same in the new
 * one. An edit of what is not there leaves the patch as it was.
 */
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
    case 'move':
      return moveModule(patch, edit.id, edit.before);
    case 'label':
      return changeModule(patch, edit.module, (m) => ({ ...m, label: edit.label }));
    case 'lock':
      return changeModule(patch, edit.module, (m) => lockParam(m, edit.param, edit.locked));
    case 'noise':
      return changeModule(patch, edit.module, (m) => setNoise(m, edit.microvolts));
    case 'ohms':
      return changeModule(patch, edit.module, (m) => setOhms(m, edit.side, edit.socket, edit.ohms));
    case 'plug':
      return { ...patch, cables: atEnd(patch.cables, (c) => c.to === edit.cable.to, edit.cable) };
    case 'unplug':
      return { ...patch, cables: patch.cables.filter((c) => c.to !== edit.to) };
    case 'normal':
      return { ...patch, normals: atEnd(patch.normals, (n) => n.to === edit.to, edit.normal) };
    case 'bypass': {
      const entry = edit.cables && { module: edit.module, cables: edit.cables };
      return { ...patch, bypassed: placed(patch.bypassed, (b) => b.module === edit.module, entry) };
    }
    case 'target':
      return { ...patch, targets: placed(patch.targets, (t) => isTarget(t, edit.at, edit.id), edit.target) };
    case 'hand':
      return { ...patch, hands: placed(patch.hands, (h) => h.at === edit.at, edit.hand) };
    case 'control': {
      const { number, at } = edit;
      return {
        ...patch,
        controls: placed(patch.controls, (c) => c.number === number, at === null ? null : { number, at }),
      };
    }
    case 'macro':
      return { ...patch, macros: withMacro(patch.macros, edit.fader, edit.macro) };
    case 'pin': {
      const isPinned = patch.probes.some((p) => p.at === edit.at);
      if (isPinned === edit.pinned) return patch;
      return { ...patch, probes: placed(patch.probes, (p) => p.at === edit.at, edit.pinned ? { at: edit.at } : null) };
    }
    case 'dismiss': {
      const { code, at, reason } = edit;
      const isIt = (d: Dismissal): boolean => d.code === code && d.at === at;
      return { ...patch, dismissed: atEnd(patch.dismissed, isIt, reason === null ? null : { code, at, reason }) };
    }
    case 'variant': {
      const kept = edit.state && { name: edit.name, ...stateOf(edit.state) };
      return { ...patch, variants: placed(patch.variants, (v) => v.name === edit.name, kept) };
    }
    case 'state':
      return withState(patch, edit.state);
    case 'settings':
      return { ...patch, settings: { ...patch.settings, ...edit.settings } };
    case 'put':
      return { ...patch, ...edit.put };
    case 'tidy':
      return keepReal(patch);
    case 'splice':
      return spliced(patch, edit);
  }
}

/** Does edits in their order. */
export const applyEdits = (patch: Patch, edits: readonly Edit[]): Patch => edits.reduce(applyEdit, patch);
