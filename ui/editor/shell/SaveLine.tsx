'use client';
import Box from '@mui/material/Box';
import { useStore } from 'zustand';
import type { DeskStore, SaveState } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';

const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

function saveText(save: SaveState): string {
  switch (save.kind) {
    case 'saved':
      return `Saved ${clock.format(new Date(save.at))}`;
    case 'unsaved':
      return 'Not saved yet';
    case 'saving':
      return 'Saving…';
    case 'offline':
      return 'Offline: changes kept in this browser, retrying';
    case 'conflict':
      return 'Edited elsewhere: both versions kept';
    case 'deleted':
      return 'Deleted elsewhere: kept in this browser';
    case 'refused':
      return `Not saved (kept in this browser): ${save.message}`;
  }
}

/** Where the patch is kept by now. */
export function SaveLine({ desk, others }: { readonly desk: DeskStore; readonly others: boolean }) {
  const save = useStore(desk, (s) => s.save);
  const bad = !['saved', 'saving', 'unsaved'].includes(save.kind);
  return (
    <Box
      role="status"
      data-save={save.kind}
      title="Saves automatically"
      sx={{
        fontSize: 13,
        color: bad ? ink.error : ink.softInk,
        whiteSpace: bad ? 'normal' : 'nowrap',
        display: { xs: bad ? 'block' : 'none', sm: 'block' },
        flexShrink: bad ? 1 : 0,
      }}
    >
      {saveText(save)}
      {others && ' · also open in another tab'}
    </Box>
  );
}
