'use client';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useStore } from 'zustand';
import { RedoIcon, UndoIcon } from '@/ui/parts/icons';
import type { DeskStore } from '@/ui/session/desk';
import { useCalm } from '@/ui/session/useCalm';

const named = {
  maxWidth: 240,
  whiteSpace: 'nowrap',
  overflow: 'hidden',
  textOverflow: 'ellipsis',
  display: { xs: 'none', md: 'block' },
} as const;

/** The names of what undoing and redoing would do; on a phone, two signs. */
export function UndoRedo({ desk }: { readonly desk: DeskStore }) {
  const newest = useStore(desk, (s) => s.history.past.at(-1)?.label);
  const last = useCalm(newest, (from, to) => from !== undefined && to !== undefined);
  const next = useStore(desk, (s) => s.history.future[0]?.label);
  const { undo, redo } = desk.getState();
  return (
    <>
      {last !== undefined && (
        <>
          <Button onClick={undo} sx={named}>
            {`Undo: ${last}`}
          </Button>
          <IconButton aria-label={`Undo ${last}`} onClick={undo} sx={{ display: { md: 'none' } }}>
            <UndoIcon fontSize="small" />
          </IconButton>
        </>
      )}
      {next !== undefined && (
        <IconButton aria-label={`Redo: ${next}`} title={`Redo: ${next}`} onClick={redo}>
          <RedoIcon fontSize="small" />
        </IconButton>
      )}
    </>
  );
}
