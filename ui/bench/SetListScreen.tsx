'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import type { SetEntry } from '@/core';
import { counted } from '@/ui/parts/counted';
import { fonts, ink } from '@/ui/theme/tokens';
import { ChangeSteps } from './ChangeSteps';
import { PaperPage } from './PaperPage';
import { setApi } from './setApi';

/** `0:05`, hours and minutes from the start. */
const clock = (minutes: number): string =>
  `${Math.floor(minutes / 60)}:${String(Math.round(minutes % 60)).padStart(2, '0')}`;

/** An evening as one document: what is patched first, and the way from each patch to the next. */
export function SetListScreen({ id }: { readonly id: string }) {
  const { data, error } = useQuery({ queryKey: ['set sheet', id], queryFn: () => setApi.sheet(id), staleTime: 0 });
  const minutes = (data?.entries ?? []).reduce((sum, e) => sum + e.minutes, 0);
  return (
    <PaperPage
      title={data?.name ?? null}
      says={`${counted(data?.entries.length ?? 0, 'patch', 'patches')} · ${minutes} min · ${data?.rack ?? 'No rack'}`}
      waiting="Preparing the set list"
      error={error}
    >
      {data?.entries.map((entry, i) => (
        <Entry key={i} entry={entry} first={i === 0} />
      ))}
    </PaperPage>
  );
}

function Entry({ entry, first }: { readonly entry: SetEntry; readonly first: boolean }) {
  return (
    <Box component="section" data-entry={entry.name} sx={{ mt: 3 }}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, borderBottom: `2px solid ${ink.ink}` }}>
        <Box sx={{ fontFamily: fonts.numbers, fontSize: 18 }}>{clock(entry.begins)}</Box>
        <Box component="h2" sx={{ fontSize: 18, m: 0, flex: 1 }}>
          {entry.name}
        </Box>
        <Box sx={{ color: ink.softInk }}>{`${entry.minutes} min`}</Box>
      </Box>
      {entry.notes && <Box sx={{ my: 0.5, whiteSpace: 'pre-wrap' }}>{entry.notes}</Box>}
      {entry.short.length > 0 && (
        <Alert severity="warning">{`No channel on this rack for ${entry.short.join(', ')}.`}</Alert>
      )}
      {entry.keepFree.length > 0 && (
        <Box sx={{ color: ink.softInk, my: 0.5 }}>{`Keep free for the next patch: ${entry.keepFree.join('; ')}.`}</Box>
      )}
      {!first && entry.steps.length === 0 && <p>Nothing changes at the rack.</p>}
      <ChangeSteps steps={entry.steps} />
    </Box>
  );
}
