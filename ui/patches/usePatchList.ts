import { useQueries, useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { api } from '@/ui/parts/api';
import type { FoundPatches, PatchListing } from '@/wire/patches';
import type { SearchIdsRequest } from '@/wire/requests';
import { pagesOf, PAGE } from './pages';

/** How often rows that are still being made are asked for, milliseconds. */
const MAKING = 1500;

/** Whether something in some rows is still being worked out. */
function isComing({ patches, pending }: FoundPatches, rack: string): boolean {
  return pending > 0 || patches.some((p) => (!p.summary && !p.fault) || (rack !== '' && !p.fit));
}

export interface PatchList {
  /** How many there are; null until it is known. */
  readonly total: number | null;
  /** How many may yet be among them. */
  readonly pending: number;
  /** Whether it still shows what was asked before. */
  readonly busy: boolean;
  readonly error: Error | null;
  /** The row of an index; null while it is on its way. */
  at(index: number): PatchListing | null;
  /** Which rows are drawn. */
  draw(from: number, to: number): void;
}

/**
 * The patches that are looked for, read as far as they are drawn.
 *
 * @param first what the page itself came with.
 */
export function usePatchList(asked: SearchIdsRequest, first: FoundPatches | null): PatchList {
  const [range, setRange] = useState<readonly [number, number]>([0, 0]);
  const draw = useCallback(
    (from: number, to: number): void => setRange((now) => (now[0] === from && now[1] === to ? now : [from, to])),
    [],
  );
  const page = (n: number) => ({
    queryKey: ['patches', 'found', asked, n],
    queryFn: () => api.search({ ...asked, from: n * PAGE, count: PAGE }),
    staleTime: 0,
    refetchInterval: ({ state }: { readonly state: { readonly data: FoundPatches | undefined } }) =>
      state.data && isComing(state.data, asked.rack) ? MAKING : false,
  });
  const head = useQuery({ ...page(0), placeholderData: (before) => before ?? first ?? undefined });
  const total = head.data?.total ?? null;
  const numbers = pagesOf(range, total ?? 0).filter((n) => n > 0);
  const others = useQueries({ queries: numbers.map(page) });
  const rows = new Map<number, PatchListing>();
  const put = (n: number, found: FoundPatches | undefined): void =>
    found?.patches.forEach((patch, i) => rows.set(n * PAGE + i, patch));
  put(0, head.data);
  numbers.forEach((n, i) => put(n, others[i]?.data));
  return {
    total,
    pending: head.data?.pending ?? 0,
    busy: head.isPlaceholderData,
    error: head.error,
    at: (index) => rows.get(index) ?? null,
    draw,
  };
}
