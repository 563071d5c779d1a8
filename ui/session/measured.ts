import { useMemo } from 'react';
import { useStore } from 'zustand';
import { asMeasured, placesOf } from '@/core';
import type { Patch, Rack } from '@/core';
import { settings } from '@/ui/parts/settings';
import { channels } from './channels';

type Module = Patch['modules'][number];

/** By rack and module, so that what no edit touched stays the very same. */
const known = new WeakMap<Rack, WeakMap<Module, Module>>();
const patches = new WeakMap<Patch, { readonly rack: Rack; readonly patch: Patch }>();

/** Whether anything was measured of a rack. */
export const hasMeasured = (rack: Rack | null): boolean =>
  rack !== null && placesOf(rack).some((p) => p.channel.measured !== undefined);

function measuredOn(patch: Patch, rack: Rack): Patch {
  const before = patches.get(patch);
  if (before?.rack === rack) return before.patch;
  const modules = known.get(rack) ?? new WeakMap<Module, Module>();
  known.set(rack, modules);
  const found = asMeasured(patch, rack);
  const same = found.modules.map((m, i) => {
    const own = patch.modules[i] as Module;
    const kept = modules.get(own) ?? m;
    modules.set(own, kept);
    return kept;
  });
  const there = { ...found, modules: same };
  patches.set(patch, { rack, patch: there });
  return there;
}

/** A patch as the chosen rack’s modules were measured, where that is asked for. */
export function measuredPatch(patch: Patch): Patch {
  const { rack } = channels.getState();
  return settings.getState().asMeasured && rack && hasMeasured(rack) ? measuredOn(patch, rack) : patch;
}

/** The same, for what is drawn. */
export function useMeasured(patch: Patch): Patch {
  const on = useStore(settings, (s) => s.asMeasured);
  const rack = useStore(channels, (s) => s.rack);
  return useMemo(() => (on && rack && hasMeasured(rack) ? measuredOn(patch, rack) : patch), [patch, on, rack]);
}
