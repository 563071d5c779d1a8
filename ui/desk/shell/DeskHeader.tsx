'use client';
import HelpIcon from '@mui/icons-material/Help';
import RedoIcon from '@mui/icons-material/Redo';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import dayjs from 'dayjs';
import { memo } from 'react';
import { useStore } from 'zustand';
import { printPatch } from '@/core';
import { downloadPatch } from '@/ui/parts/files';
import { SafeLink } from '@/ui/parts/SafeLink';
import { SchemeButton } from '@/ui/parts/SchemeButton';
import type { DeskStore, SaveState } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { PatchName } from './PatchName';
import type { Scene } from '@/ui/session/scene';
import { useCalm } from '@/ui/session/useCalm';

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
    case 'deleted':
      return 'Deleted elsewhere: kept in this browser';
    case 'refused':
      return `Not saved, kept in this browser: ${save.message}`;
  }
}

interface Props {
  readonly desk: DeskStore;
  readonly others: boolean;
  readonly setScene: (scene: Scene) => void;
}

export const DeskHeader = memo(function DeskHeader({ desk, others, setScene }: Props) {
  const name = useStore(desk, (s) => s.patch.name);
  const { edit } = desk.getState();
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
      <Box component={SafeLink} href="/" sx={{ color: ink.softInk }}>
        Shelf
      </Box>
      <span>/</span>
      <PatchName
        key={name}
        name={name}
        onRename={(next) => edit(`name ${next}`, [{ do: 'put', put: { name: next } }])}
      />
      <SaveLine desk={desk} others={others} />
      <Box sx={{ flex: 1 }} />
      <UndoRedo desk={desk} />
      <Tools desk={desk} setScene={setScene} />
    </Box>
  );
});

function SaveLine({ desk, others }: Pick<Props, 'desk' | 'others'>) {
  const save = useStore(desk, (s) => s.save);
  const bad = !['saved', 'saving', 'unsaved'].includes(save.kind);
  return (
    <Box role="status" data-save={save.kind} sx={{ fontSize: 13, color: bad ? ink.error : ink.softInk }}>
      {saveText(save)}
      {others && ' · also open in another tab'}
    </Box>
  );
}

/** The names of what undoing and redoing would do. */
function UndoRedo({ desk }: Pick<Props, 'desk'>) {
  const newest = useStore(desk, (s) => s.history.past.at(-1)?.label);
  const last = useCalm(newest, (from, to) => from !== undefined && to !== undefined);
  const next = useStore(desk, (s) => s.history.future[0]?.label);
  const { undo, redo } = desk.getState();
  return (
    <>
      {last !== undefined && (
        <Button onClick={undo} sx={undoStyle}>
          {`Undo: ${last}`}
        </Button>
      )}
      {next !== undefined && (
        <IconButton aria-label={`Redo: ${next}`} title={`Redo: ${next}`} onClick={redo}>
          <RedoIcon fontSize="small" />
        </IconButton>
      )}
    </>
  );
}

const undoStyle = {
  maxWidth: 260,
  whiteSpace: 'nowrap',
  overflow: 'hidden',
  textOverflow: 'ellipsis',
  display: 'block',
} as const;

const Tools = memo(function Tools({ desk, setScene }: Pick<Props, 'desk' | 'setScene'>) {
  const download = (): void => {
    const { patch } = desk.getState();
    downloadPatch(patch.name, printPatch(patch));
  };
  return (
    <>
      <Button onClick={() => setScene({ show: 'palette' })} aria-keyshortcuts="Control+K">
        Find
      </Button>
      <Button onClick={() => setScene({ show: 'variants' })}>Variants</Button>
      <Button onClick={() => setScene({ show: 'history' })}>History</Button>
      <Button onClick={() => setScene({ show: 'import' })}>Import</Button>
      <Button onClick={download}>Export</Button>
      <IconButton aria-label="Keys and words" title="Keys and words" onClick={() => setScene({ show: 'help' })}>
        <HelpIcon fontSize="small" />
      </IconButton>
      <SchemeButton />
    </>
  );
});
