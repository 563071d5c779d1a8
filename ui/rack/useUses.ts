import { useMemo } from 'react';
import { parsePatch, placeName } from '@/core';
import type { Assignment, Patch, Rack } from '@/core';
import { useQuery } from '@tanstack/react-query';
import { api } from '@/ui/parts/api';
import { usePlanned } from '@/ui/parts/planning';
import type { Asked } from '@/ui/parts/planning';
import type { ChannelUse } from '@/wire/patches';

interface ShortLine {
  readonly module: string;
  readonly why: string;
  readonly covers: string;
}

export interface Uses {
  /** By channel, the patches or modules that play there. */
  readonly byChannel: ReadonlyMap<string, readonly string[]>;
  readonly short: readonly ShortLine[];
}

const labelIn = (patch: Patch, id: string): string => placeName(patch.modules, id);

function usesOf(patch: Patch, { assigned, short }: Assignment): Uses {
  return {
    byChannel: new Map(assigned.map((a) => [a.rack, [labelIn(patch, a.module)]])),
    short: short.map((s) => ({ module: labelIn(patch, s.module), why: s.why, covers: s.covers.join(', ') })),
  };
}

/** What plays on which channel: of one patch as it would be assigned, else of all patches that say so. */
export function useUses(rack: Rack | null, forPatch: string): Uses {
  const { data: all } = useQuery({ queryKey: ['patches', 'uses'], queryFn: api.uses, enabled: forPatch === '' });
  const { data } = useQuery({
    queryKey: ['patch', forPatch],
    queryFn: () => api.get(forPatch),
    enabled: forPatch !== '',
  });
  const patch = useMemo(() => {
    const read = data && forPatch !== '' ? parsePatch(data.patch) : null;
    return read?.ok ? read.value : null;
  }, [data, forPatch]);
  const ask = useMemo(
    (): Asked<Assignment> | null => (patch && rack ? (worker) => worker.assign(patch, rack) : null),
    [patch, rack],
  );
  const { answer } = usePlanned<Assignment>(ask);
  return useMemo(() => {
    if (patch && answer) return usesOf(patch, answer);
    const told = ({ channel, names, more }: ChannelUse) =>
      [channel, more > 0 ? [...names, `${more} more`] : names] as const;
    return { byChannel: new Map((all ?? []).map(told)), short: [] };
  }, [all, patch, answer]);
}
