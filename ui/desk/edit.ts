import type { Patch } from '@/core';

/** Makes one named, undoable edit; edits of one key in one go count as one. */
export type Edit = (label: string, change: (patch: Patch) => Patch, key?: string) => void;
