'use client';
import { useQuery } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { createContext, use } from 'react';
import { api } from '@/ui/parts/api';
import { LostPage } from '@/ui/parts/LostPage';
import { patiently } from '@/ui/parts/patiently';
import { warmCore } from '@/ui/session/coreWorker';
import type { FirstPaint as FirstPaintData } from '@/wire/patches';
import { FirstPaint } from './FirstPaint';

const desk = patiently(() => import('./Desk').then((m) => m.Desk));

const First = createContext<FirstPaintData | null>(null);
const Coming = () => <FirstPaint first={use(First)} />;

/** The editor needs the browser (workers, drafts, sizes): the server sends what it knows of the patch. */
const Desk = dynamic(desk, { ssr: false, loading: Coming });

// On their way while the page itself wakes and the patch is read.
if (typeof window !== 'undefined') {
  void desk();
  warmCore();
}

interface Props {
  readonly id: string;
  /** What the server knows of the patch; null where there is none. */
  readonly first: FirstPaintData | null;
}

export function DeskScreen({ id, first }: Props) {
  const { data, error } = useQuery({
    queryKey: ['patch', id],
    queryFn: () => api.get(id),
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });
  if (error) {
    return <LostPage title="This patch could not be opened" says={error.message} />;
  }
  return <First value={first}>{data ? <Desk key={id} stored={data} /> : <FirstPaint first={first} />}</First>;
}
