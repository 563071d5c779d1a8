import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import { parseRack } from '@/core';
import type { Rack } from '@/core';
import { rackApi } from './rackApi';
import { setSetting, settings } from './settings';

/** The racks that are there, and the one that this browser has chosen; none until one is. */
export function useChosenRack(refetchOnMount: true | 'always' = true) {
  const { data: racks, isFetching } = useQuery({ queryKey: ['racks'], queryFn: () => rackApi.list(), refetchOnMount });
  const kept = useStore(settings, (s) => s.rack);
  const id = racks?.some((r) => r.id === kept) ? kept : '';
  return { racks: racks ?? [], isFetching, kept, id, choose: (next: string) => setSetting('rack', next) };
}

const useRackQuery = (id: string) =>
  useQuery({ queryKey: ['rack', id], queryFn: () => rackApi.get(id), enabled: id !== '' });

/** The chosen rack itself; null where none is chosen, or until it is there. */
export function useRackDocument(id: string): Rack | null {
  const { data } = useRackQuery(id);
  return useMemo(() => {
    if (!data) return null;
    const read = parseRack(data.rack);
    return read.ok ? read.value : null;
  }, [data]);
}

/** The chosen rack, and what this browser keeps as its choice once it is known whether there is such a rack. */
export function useKeptRack(): { readonly rack: Rack | null; readonly answered: string | null } {
  // A rack made a moment ago is in no list that was read before.
  const { id, kept, isFetching } = useChosenRack('always');
  const { isPending } = useRackQuery(id);
  const rack = useRackDocument(id);
  return { rack, answered: (id === '' ? isFetching : isPending) ? null : kept };
}
