import type { Document } from './patches';
import type { Tick, Ticks } from './requests';

/** What passes between page and server about racks and sheets. */

export interface RackHead {
  readonly id: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}

export interface ListedRack extends RackHead {
  readonly name: string;
  readonly modules: number;
  readonly channels: number;
}

export interface StoredRack extends RackHead {
  readonly rack: Document;
}

/** Two people's ticks as one: of each step the later word. */
export function mergedTicks(a: Ticks, b: Ticks): Ticks {
  const merged: Record<string, Tick> = { ...a };
  for (const [id, tick] of Object.entries(b)) {
    const known = merged[id];
    if (!known || tick.at >= known.at) merged[id] = tick;
  }
  return merged;
}

/** What is ticked of a sheet, and since when it counts; null where it was never begun anew. */
export interface KeptTicks {
  readonly ticks: Ticks;
  /** Milliseconds since 1970. */
  readonly since: number | null;
}

/** The same with the session that it belongs to; null where none is open. */
export interface SheetTicks extends KeptTicks {
  readonly session: string | null;
}

/** Of ticks, those that were not there before, or are said anew. */
export const newTicks = (before: Ticks, after: Ticks): Ticks =>
  Object.fromEntries(
    Object.entries(after).filter(([step, tick]) => JSON.stringify(before[step]) !== JSON.stringify(tick)),
  );

/** A phone that was paired over the local network. */
export interface PairedPhone {
  readonly id: string;
  readonly patch: string;
  /** What its browser says of itself. */
  readonly agent: string;
  /** Milliseconds since 1970. */
  readonly since: number;
}

export interface PairingState {
  /** Where the local network reaches the program; null where it was not started for it. */
  readonly address: string | null;
  readonly phones: readonly PairedPhone[];
}

/** A code for one phone, good once. */
export interface PairingCode {
  readonly code: string;
  readonly url: string;
  readonly until: number;
}
