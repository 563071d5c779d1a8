'use client';
import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { LostPage } from '@/ui/parts/LostPage';
import { later } from '@/ui/parts/later';
import { SiteHead } from '@/ui/parts/SiteHead';
import { openWalkthrough } from '@/ui/parts/walkthroughApi';

const Player = later(() => import('./Player').then((m) => m.Player));

/** One walkthrough, played. */
export function WalkthroughScreen({ id }: { readonly id: string }) {
  const router = useRouter();
  const { data, error } = useQuery({
    queryKey: ['walkthrough', id],
    queryFn: () => openWalkthrough(id),
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });
  if (error) return <LostPage title="This walkthrough could not be opened" says={error.message} />;
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: '100vh', height: { md: '100vh' } }}>
      <SiteHead here="/practice" />
      {data ? (
        <Player walkthrough={data} onEnd={() => router.push('/practice/walkthroughs')} />
      ) : (
        <Skeleton variant="rectangular" sx={{ m: 2, height: 480 }} />
      )}
    </Box>
  );
}
