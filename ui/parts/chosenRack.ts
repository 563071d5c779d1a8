import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import { parseRack } from '@/core';
import type { Rack } from '@/core';
import { rackApi } from './rackApi';
import { setSetting, settings } from './settings';

/** The racks that are there, and the one that this browser has chosen; none until one is. */
export function useChosenRack() {
  const { data: racks } = useQuery({ queryKey: ['racks'], queryFn: () => rackApi.list() });
  const kept = useStore(settings, (s) => s.rack);
  const id = racks?.some((r) => r.id === kept) ? kept : '';
  return { racks: racks ?? [], id, choose: (next: string) => setSetting('rack', next) };
}

/** The chosen rack itself; null where none is chosen, or until it is there. */
export function useRackDocument(id: string): Rack | null {
  const { data } = useQuery({ queryKey: ['rack', id], queryFn: () => rackApi.get(id), enabled: id !== '' });
  return useMemo(() => {
    if (!data) return null;
    const read = parseRack(data.rack);
    return read.ok ? read.value : null;
  }, [data]);
}
