import type { Json, Patch } from './types';

/** The patch as its document: known keys first, unknown top-level keys as they came. Defaults stay left out. */
export function printPatch(patch: Patch): { readonly [key: string]: Json } {
  const { extra, dismissed, ...rest } = patch;
  const known = dismissed.length > 0 ? { ...rest, dismissed } : rest;
  return { ...(known as unknown as Record<string, Json>), ...extra };
}
