import { call } from '@/ui/parts/api';
import type { CreateSetListRequest, SaveSetListRequest } from '@/wire/requests';
import type { ChangeSheet, SetListSheet, StoredSetList } from '@/wire/setLists';

const at = (id: string): string => `/setlists/${encodeURIComponent(id)}`;

export const setApi = {
  list: () => call<{ setLists: StoredSetList[] }>('GET', '/setlists').then((x) => x.setLists),
  get: (id: string) => call<StoredSetList>('GET', at(id)),
  create: (wanted: CreateSetListRequest) => call<StoredSetList>('POST', '/setlists', wanted),
  save: (id: string, wanted: SaveSetListRequest) => call<StoredSetList>('PUT', at(id), wanted),
  remove: (id: string) => call<StoredSetList>('DELETE', at(id)),
  restore: (id: string) => call<StoredSetList>('POST', `${at(id)}/restore`),
  sheet: (id: string) => call<SetListSheet>('GET', `${at(id)}/sheet`),
  change: (query: string) => call<ChangeSheet>('GET', `/change?${query}`),
};
