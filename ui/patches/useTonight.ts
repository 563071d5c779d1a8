import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { rackApi } from '@/ui/parts/rackApi';
import type { ListedPatch } from '@/wire/patches';
import type { Tonight } from '@/wire/racks';

const NONE: ReadonlyMap<string, Tonight> = new Map();

/** Which patches can be patched with the chosen rack; empty where none is chosen. */
export function useTonight(patches: readonly ListedPatch[]): ReadonlyMap<string, Tonight> {
  const { racks, id } = useChosenRack();
  const revision = racks.find((r) => r.id === id)?.revision ?? 0;
  const of = patches.map((p) => `${p.id} ${p.revision}`).join();
  const { data } = useQuery({
    queryKey: ['tonight', id, revision, of],
    queryFn: () => rackApi.tonight(id),
    enabled: id !== '' && patches.length > 0,
    placeholderData: (before) => before,
  });
  return useMemo(() => (data && id !== '' ? new Map(data.map((t) => [t.patch, t])) : NONE), [data, id]);
}
