'use client';
import IconButton from '@mui/material/IconButton';
import { useStore } from 'zustand';
import { RedoIcon, UndoIcon } from '@/ui/parts/icons';
import type { DeskStore } from '@/ui/session/desk';
import { useCalm } from '@/ui/session/useCalm';

/** Undo and redo, always in their places; what they would do stands on hover and for screen readers. */
export function UndoRedo({ desk }: { readonly desk: DeskStore }) {
  const newest = useStore(desk, (s) => s.history.past.at(-1)?.label);
  const last = useCalm(newest, (from, to) => from !== undefined && to !== undefined);
  const next = useStore(desk, (s) => s.history.future[0]?.label);
  const { undo, redo } = desk.getState();
  const [undoes, redoes] = [
    last === undefined ? 'Undo' : `Undo: ${last}`,
    next === undefined ? 'Redo' : `Redo: ${next}`,
  ];
  return (
    <>
      <IconButton aria-label={undoes} title={undoes} disabled={last === undefined} onClick={undo}>
        <UndoIcon fontSize="small" />
      </IconButton>
      <IconButton aria-label={redoes} title={redoes} disabled={next === undefined} onClick={redo}>
        <RedoIcon fontSize="small" />
      </IconButton>
    </>
  );
}
