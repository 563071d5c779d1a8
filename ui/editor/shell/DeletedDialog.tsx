'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useStore } from 'zustand';
import { printPatch } from '@/core';
import { tell } from '@/ui/parts/messages';
import { api } from '@/ui/parts/api';
import type { DeskStore } from '@/ui/session/desk';
import { dropDraft } from '@/ui/session/draft';

/** The open patch was deleted elsewhere: what stands here is kept, and can be stored again. */
export function DeletedDialog({ desk }: { desk: DeskStore }) {
  const router = useRouter();
  const save = useStore(desk, (s) => s.save);
  const [fault, setFault] = useState<string | null>(null);
  const [asked, setAsked] = useState(true);
  if (save.kind !== 'deleted' || !asked) return null;
  const put = async (): Promise<void> => {
    const { id, patch } = desk.getState();
    try {
      if (save.forGood) {
        const made = await api.create(printPatch(patch));
        dropDraft(id);
        router.push(`/patches/${made.id}`);
        return;
      }
      const now = await api.restore(id);
      const stored = await api.save(id, now.revision, printPatch(patch), crypto.randomUUID());
      desk.getState().setSave({ kind: 'unsaved' });
      desk.getState().confirm(stored.revision, patch, stored.updatedAt);
      dropDraft(id);
      tell('Patch restored with your changes.');
    } catch (error) {
      setFault(`${error instanceof Error ? error.message : String(error)} Yours is still here; try again.`);
    }
  };
  return (
    <Dialog open aria-labelledby="deleted-title">
      <DialogTitle id="deleted-title">This patch was deleted elsewhere</DialogTitle>
      <DialogContent>
        {save.forGood
          ? 'It was permanently deleted, including its history. Your copy is kept in this browser and can be saved as a new patch.'
          : 'Your copy is kept in this browser. Restore the patch to save it.'}
        {fault && <p role="alert">{fault}</p>}
      </DialogContent>
      <DialogActions>
        <Button onClick={() => setAsked(false)}>Not now</Button>
        <Button color="primary" onClick={() => void put()}>
          {save.forGood ? 'Save as a new patch' : 'Restore and save'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
