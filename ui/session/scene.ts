import type { Patch } from '@/core';

/** What the editor shows beside or over the patch. */
export type Scene = { readonly show: 'desk' | 'variants' | 'history' | 'help' | 'palette' | 'import' } | Compared;

/** Another state of the patch that stands under it. */
export interface Compared {
  readonly show: 'compare';
  readonly name: string;
  readonly patch: Patch;
}

/** Whether it takes the place of the inspector's panel. */
export const isBeside = (scene: Scene): boolean => scene.show === 'variants' || scene.show === 'history';
