import type { Rack } from '../document/rackTypes';
import { channelTitle } from '../document/rackTypes';
import type { Patch } from '../document/types';
import { assignRack } from '../plan/assign';
import { changeOf } from './change';
import type { ChangeOptions, ChangeStep } from './change';
import { sheetOf } from './sheet';

/** One patch of an evening. */
export interface SetItem {
  readonly patch: Patch;
  readonly name: string;
  readonly notes: string;
  /** How long it plays. */
  readonly minutes: number;
}

export interface SetEntry {
  readonly name: string;
  readonly notes: string;
  readonly minutes: number;
  /** When it begins, minutes from the start. */
  readonly begins: number;
  /** From nothing for the first; then from the one before. */
  readonly steps: readonly ChangeStep[];
  /** Channels that play it, as people call them. */
  readonly uses: readonly string[];
  /** Channels that the next one needs and this one does not: left free meanwhile. */
  readonly keepFree: readonly string[];
  /** What the rack has no channel for. */
  readonly short: readonly string[];
}

const channelsOf = (patch: Patch, rack: Rack | undefined) => {
  const { assigned, short } = rack ? assignRack(patch, rack) : { assigned: [], short: [] };
  return { used: assigned.map((a) => a.rack), short: short.map((s) => s.module) };
};

/** An evening as one document: what is patched first, what changes from one patch to the next, what must stay free. Pure. */
export function setListOf(items: readonly SetItem[], options: ChangeOptions = {}): SetEntry[] {
  const { rack } = options;
  const on = items.map(({ patch }) => channelsOf(patch, rack));
  const titles = (names: readonly string[]): string[] =>
    [...new Set(names)].map((name) => channelTitle(rack, name)).sort();
  return items.map((item, i): SetEntry => {
    const before = items[i - 1];
    const [here, next] = [on[i], on[i + 1]];
    return {
      name: item.name,
      notes: item.notes,
      minutes: item.minutes,
      begins: items.slice(0, i).reduce((sum, x) => sum + x.minutes, 0),
      steps: before ? changeOf(before.patch, item.patch, options).steps : sheetOf(item.patch, options).steps,
      uses: titles(here?.used ?? []),
      keepFree: titles((next?.used ?? []).filter((name) => !here?.used.includes(name))),
      short: here?.short ?? [],
    };
  });
}
