'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import dayjs from 'dayjs';
import { useState } from 'react';
import { printPatch } from '@/core';
import { api } from '@/ui/parts/api';
import type { DeskStore } from '@/ui/session/desk';
import { dropDraft } from '@/ui/session/draft';
import { patchOf } from '@/ui/session/useAutosave';
import type { Conflict } from '@/ui/session/useAutosave';

/** Two versions of one patch: neither is thrown away. */
export function ConflictDialog({
  desk,
  conflict,
  onSettled,
}: {
  desk: DeskStore;
  conflict: Conflict;
  onSettled: () => void;
}) {
  const { theirs } = conflict;
  const [fault, setFault] = useState<string | null>(null);
  const settle = async (work: () => Promise<void>): Promise<void> => {
    try {
      await work();
      onSettled();
    } catch (error) {
      setFault(`${error instanceof Error ? error.message : String(error)} Both versions are still here; try again.`);
    }
  };
  const keepAsCopy = (): Promise<void> =>
    settle(async () => {
      const { id, patch } = desk.getState();
      const name = `${patch.name} (other version, ${dayjs().format('HH:mm')})`.slice(0, 200);
      await api.create(printPatch({ ...patch, name }));
      const now = await api.get(id);
      dropDraft(id);
      desk.getState().replace(patchOf(now), now.revision, now.updatedAt);
    });
  const saveOnTop = (): Promise<void> =>
    settle(async () => {
      const { id, patch } = desk.getState();
      const now = await api.get(id);
      const saved = await api.save(id, now.revision, printPatch(patch));
      dropDraft(id);
      desk.getState().setSave({ kind: 'unsaved' });
      desk.getState().confirm(saved.revision, patch, saved.updatedAt);
    });
  return (
    <Dialog open aria-labelledby="conflict-title">
      <DialogTitle id="conflict-title">This patch was edited elsewhere</DialogTitle>
      <DialogContent>
        {`Version ${theirs.revision} was saved at ${dayjs(theirs.updatedAt).format('HH:mm')} while this tab had unsaved changes. Nothing was overwritten.`}
        {fault && <p role="alert">{fault}</p>}
      </DialogContent>
      <DialogActions>
        <Button onClick={() => void saveOnTop()}>Save mine (theirs stays in History)</Button>
        <Button color="primary" onClick={() => void keepAsCopy()}>
          Save mine as a copy and open theirs
        </Button>
      </DialogActions>
    </Dialog>
  );
}
