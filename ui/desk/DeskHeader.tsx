'use client';
import RedoIcon from '@mui/icons-material/Redo';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import dayjs from 'dayjs';
import Link from 'next/link';
import { useStore } from 'zustand';
import { printPatch } from '@/core';
import { downloadPatch } from '@/ui/parts/files';
import { SchemeButton } from '@/ui/parts/SchemeButton';
import type { DeskStore, SaveState } from '@/ui/state/desk';
import { ink } from '@/ui/theme/tokens';
import { PatchName } from './PatchName';

function saveText(save: SaveState): string {
  switch (save.kind) {
    case 'saved':
      return `Saved ${dayjs(save.at).format('HH:mm')}`;
    case 'unsaved':
      return 'Not saved yet';
    case 'saving':
      return 'Saving…';
    case 'offline':
      return 'Server lost: kept in this browser, trying again';
    case 'conflict':
      return 'Saved elsewhere: both versions are kept';
  }
}

export function DeskHeader({ desk, others }: { desk: DeskStore; others: boolean }) {
  const patch = useStore(desk, (s) => s.patch);
  const save = useStore(desk, (s) => s.save);
  const history = useStore(desk, (s) => s.history);
  const { undo, redo, edit } = desk.getState();
  const last = history.past.at(-1);
  const next = history.future[0];
  const bad = save.kind === 'offline' || save.kind === 'conflict';
  return (
    <Box
      component="header"
      sx={{
        minHeight: 48,
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: 1.5,
        px: 2,
        py: 0.5,
        borderBottom: `1px solid ${ink.line}`,
      }}
    >
      <Box sx={{ fontSize: 18, fontWeight: 700 }}>Fenvo</Box>
      <Box component={Link} href="/" sx={{ color: ink.softInk }}>
        Shelf
      </Box>
      <span>/</span>
      <PatchName
        key={patch.name}
        name={patch.name}
        onRename={(name) => edit(`name ${name}`, (p) => ({ ...p, name }))}
      />
      <Box role="status" data-save={save.kind} sx={{ fontSize: 13, color: bad ? ink.error : ink.softInk }}>
        {saveText(save)}
        {others && ' · also open in another tab'}
      </Box>
      <Box sx={{ flex: 1 }} />
      {last && <Button onClick={undo}>{`Undo: ${last.label}`}</Button>}
      {next && (
        <IconButton aria-label={`Redo: ${next.label}`} title={`Redo: ${next.label}`} onClick={redo}>
          <RedoIcon fontSize="small" />
        </IconButton>
      )}
      <Button onClick={() => downloadPatch(patch.name, printPatch(patch))}>Export</Button>
      <SchemeButton />
    </Box>
  );
}
