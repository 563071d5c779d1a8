import type { PatchState } from './types';

/** What a variant keeps of a patch, and of anything that holds as much. */
export const stateOf = ({ settings, modules, cables, normals, targets }: PatchState): PatchState => ({
  settings,
  modules,
  cables,
  normals,
  targets,
});
