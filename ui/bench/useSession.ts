import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { parsePatch } from '@/core';
import type { Patch } from '@/core';
import { useRackDocument } from '@/ui/parts/chosenRack';
import { tellFault } from '@/ui/parts/messages';
import type { StoredReading, StoredSession } from '@/wire/bench';
import type { AtRack } from '@/wire/benchJobs';
import type { ChangeSessionRequest, SentReading } from '@/wire/requests';
import { benchApi } from './benchApi';

/** How often a session that is open is asked for: a phone may add to it, milliseconds. */
const LOOK = 4000;

export interface OpenSession {
  readonly session: StoredSession;
  readonly patch: Patch;
  /** For what is worked out beside the page. */
  readonly at: AtRack;
  /** Readings that no later one corrects, in their order. */
  readonly standing: readonly StoredReading[];
  change(change: ChangeSessionRequest): Promise<void>;
  add(readings: readonly SentReading[]): Promise<void>;
  refresh(): Promise<void>;
}

/** A session with its patch, as it is stored; null until both are there. */
export function useSession(id: string): { readonly open: OpenSession | null; readonly error: string | null } {
  const queries = useQueryClient();
  const { data: session, error } = useQuery({
    queryKey: ['session', id],
    queryFn: () => benchApi.get(id),
    refetchInterval: ({ state }) => (state.data?.ended === null ? LOOK : false),
  });
  const { rack } = useRackDocument(session?.rackId ?? '');
  const body = session && JSON.stringify(session.document);
  const patch = useMemo(() => {
    const read = body === undefined ? null : parsePatch(JSON.parse(body));
    return read?.ok ? read.value : null;
  }, [body]);
  const at = useMemo(() => (patch ? { patch, rack, asMeasured: false } : null), [patch, rack]);
  if (!session || !patch || !at) return { open: null, error: error?.message ?? null };
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ['session', id] });
  const corrected = new Set(session.list.map((r) => r.corrects));
  return {
    error: null,
    open: {
      session,
      patch,
      at,
      standing: session.list.filter((r) => !corrected.has(r.id)),
      change: (change) =>
        benchApi
          .change(id, change)
          .then((next) => void queries.setQueryData(['session', id], next))
          .catch(tellFault),
      add: (readings) => benchApi.addReadings(id, readings).then(refresh).catch(tellFault),
      refresh,
    },
  };
}
