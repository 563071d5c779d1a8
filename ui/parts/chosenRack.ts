import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import { parseRack } from '@/core';
import type { Rack } from '@/core';
import { rackApi } from './rackApi';
import { setSetting, settings } from './settings';

const useRackList = (refetchOnMount: true | 'always') =>
  useQuery({ queryKey: ['racks'], queryFn: () => rackApi.list(), refetchOnMount });

/** The racks that are there, and the one that this browser has chosen; none until one is. */
export function useChosenRack() {
  const { data: racks } = useRackList(true);
  const kept = useStore(settings, (s) => s.rack);
  const found = racks?.find((r) => r.id === kept);
  return {
    racks: racks ?? [],
    id: found?.id ?? '',
    name: found?.name ?? '',
    choose: (next: string) => setSetting('rack', next),
  };
}

interface RackDocument {
  /** Null where none is chosen, or until it is there. */
  readonly rack: Rack | null;
  /** It is on its way: a plan made without it would name what nobody has. */
  readonly coming: boolean;
}

/** The chosen rack itself. */
export function useRackDocument(id: string): RackDocument {
  const { data, isPending } = useQuery({
    queryKey: ['rack', id],
    queryFn: () => rackApi.get(id),
    enabled: id !== '',
  });
  const rack = useMemo(() => {
    if (!data) return null;
    const read = parseRack(data.rack);
    return read.ok ? read.value : null;
  }, [data]);
  return { rack, coming: id !== '' && isPending };
}

/** The chosen rack, and what this browser keeps as its choice once it is known whether there is such a rack. */
export function useKeptRack(): { readonly rack: Rack | null; readonly answered: string | null } {
  // A rack made a moment ago is in no list that was read before.
  const { isFetching } = useRackList('always');
  const kept = useStore(settings, (s) => s.rack);
  const { id } = useChosenRack();
  const { rack, coming } = useRackDocument(id);
  return { rack, answered: coming || (id === '' && isFetching) ? null : kept };
}
