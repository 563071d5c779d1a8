'use client';
import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { api } from '@/ui/parts/api';
import { LostPage } from '@/ui/parts/LostPage';
import { patiently } from '@/ui/parts/patiently';
import { warmCore } from '@/ui/session/coreWorker';

const desk = patiently(() => import('./Desk').then((m) => m.Desk));

/** The desk needs the browser (workers, drafts, sizes), so the server sends the page without it. */
const Desk = dynamic(desk, { ssr: false });

// On their way while the page itself wakes and the patch is read.
if (typeof window !== 'undefined') {
  void desk();
  warmCore();
}

export function DeskScreen({ id }: { id: string }) {
  const { data, error } = useQuery({
    queryKey: ['patch', id],
    queryFn: () => api.get(id),
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });
  if (error) {
    return <LostPage title="This patch cannot be opened" says={error.message} />;
  }
  return data ? (
    <Desk key={id} stored={data} />
  ) : (
    <Box component="main" sx={{ p: 4 }}>
      Opening the patch…
    </Box>
  );
}
