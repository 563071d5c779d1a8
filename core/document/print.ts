import { printMacros } from './macros';
import { printVariants } from './shared';
import type { Json } from './result';
import type { Patch } from './types';

/** The patch as its document: known keys first, unknown top-level keys as they came. Defaults stay left out. */
export function printPatch(patch: Patch): { readonly [key: string]: Json } {
  const { extra, hands, macros: _macros, dismissed, bypassed, controls, variants, ...rest } = patch;
  const known = {
    ...rest,
    // What its rack’s modules really are is the rack’s to say.
    modules: rest.modules.map(({ real: _real, ...m }) => m),
    ...(hands.length > 0 && { hands }),
    ...printMacros(patch),
    ...(dismissed.length > 0 && { dismissed }),
    ...(bypassed.length > 0 && { bypassed }),
    ...(controls.length > 0 && { controls }),
    ...(variants.length > 0 && { variants: printVariants(patch) }),
  };
  return { ...(known as unknown as Record<string, Json>), ...extra };
}
