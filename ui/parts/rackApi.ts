import type { Document } from '@/wire/patches';
import type { ListedRack, PairingCode, PairingState, SheetTicks, StoredRack } from '@/wire/racks';
import type { CreateRackRequest, PairingRequest, SaveRackRequest, Ticks } from '@/wire/requests';
import type { Sheet } from '@/core';
import { call } from './api';

const at = (id: string): string => `/racks/${encodeURIComponent(id)}`;
const sheetAt = (patch: string, what: string, rack: string, more: Readonly<Record<string, string>> = {}): string =>
  `/patches/${encodeURIComponent(patch)}/${what}?${new URLSearchParams({ ...(rack && { rack }), ...more }).toString()}`;

export const rackApi = {
  list: () => call<{ racks: ListedRack[] }>('GET', '/racks').then((x) => x.racks),
  get: (id: string) => call<StoredRack>('GET', at(id)),
  create: (rack: Document) => call<StoredRack>('POST', '/racks', { rack } satisfies CreateRackRequest),
  save: (id: string, baseRevision: number, rack: Document, key: string) =>
    call<StoredRack>('PUT', at(id), { baseRevision, rack, key } satisfies SaveRackRequest),
  remove: (id: string) => call<StoredRack>('DELETE', at(id)),
  restore: (id: string) => call<StoredRack>('POST', `${at(id)}/restore`),
  sheet: (patch: string, rack: string, measured: boolean) =>
    call<Sheet>('GET', sheetAt(patch, 'sheet', rack, measured ? { measured: 'true' } : {})),
  /** Where a sheet is had as a file. */
  sheetFile: (patch: string, rack: string, more: Readonly<Record<string, string>>): string =>
    `/api${sheetAt(patch, 'sheet', rack, more)}`,
  ticks: (patch: string, rack: string) => call<SheetTicks>('GET', sheetAt(patch, 'ticks', rack)),
  addTicks: (patch: string, rack: string, ticks: Ticks) =>
    call<SheetTicks>('PUT', sheetAt(patch, 'ticks', rack), { ticks }),
  /** Ends the session that is open, and begins the sheet anew. */
  clearTicks: (patch: string, rack: string) => call<SheetTicks>('DELETE', sheetAt(patch, 'ticks', rack)),
  pairings: () => call<PairingState>('GET', '/pairings'),
  pair: (patch: string, rack: string) =>
    call<PairingCode>('POST', '/pairings', { patch, rack } satisfies PairingRequest),
  endPairing: (id: string) => call<{ id: string }>('DELETE', `/pairings/${encodeURIComponent(id)}`),
};
