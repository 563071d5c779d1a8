import type { PatchState } from './types';

/** The parts of a patch that are lists, in the order of the document. */
export const LISTS = [
  'modules',
  'cables',
  'normals',
  'targets',
  'hands',
  'macros',
  'probes',
  'order',
  'dismissed',
  'bypassed',
  'controls',
  'variants',
] as const;

export type ListKey = (typeof LISTS)[number];

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
