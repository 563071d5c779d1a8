import type { PatchState } from './types';

/** The keys of a variant beside its name. */
export const STATE_KEYS = [
  'settings',
  'modules',
  'cables',
  'normals',
  'targets',
  'hands',
  'macros',
] as const satisfies (keyof PatchState)[];

/** What a variant keeps of a patch, and of anything that holds as much. */
export const stateOf = ({ settings, modules, cables, normals, targets, hands, macros }: PatchState): PatchState => ({
  settings,
  modules,
  cables,
  normals,
  targets,
  hands,
  macros,
});
