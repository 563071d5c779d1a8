'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useState } from 'react';
import { differencesOf, printPatch } from '@/core';
import type { Patch } from '@/core';
import { dateTime } from '@/ui/parts/dates';
import { tell } from '@/ui/parts/messages';
import { api } from '@/ui/parts/api';
import { dropDraft } from '@/ui/session/draft';
import type { Draft } from '@/ui/session/draft';

/** How many differences are shown at once. */
const MOST = 12;

interface Props {
  readonly id: string;
  readonly saved: Patch;
  readonly draft: Draft;
  readonly onTake: (draft: Draft) => void;
  readonly onDone: () => void;
}

/** What a tab that is gone had not saved, beside what is saved. */
export function DraftDialog({ id, saved, draft, onTake, onDone }: Props) {
  const [fault, setFault] = useState<string | null>(null);
  const differences = differencesOf(saved, draft.patch);
  const drop = (): void => {
    dropDraft(id, draft.key);
    onDone();
  };
  const copy = async (): Promise<void> => {
    try {
      const name = `${draft.patch.name} (recovered)`.slice(0, 200);
      await api.create(printPatch({ ...draft.patch, name }));
      tell(`Saved as “${name}”.`);
      drop();
    } catch (error) {
      setFault(`${error instanceof Error ? error.message : String(error)} It is still kept in this browser.`);
    }
  };
  const when = draft.at === null ? '' : ` at ${dateTime(draft.at)}`;
  return (
    <Dialog open aria-labelledby="draft-title" maxWidth="sm" fullWidth>
      <DialogTitle id="draft-title">Recover unsaved changes?</DialogTitle>
      <DialogContent>
        <p>{`A tab closed before saving${when}. Its changes were kept in this browser.`}</p>
        <Table size="small" aria-label="Differences">
          <TableHead>
            <TableRow>
              <TableCell>what</TableCell>
              <TableCell>saved</TableCell>
              <TableCell>left unsaved</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {differences.slice(0, MOST).map((d, i) => (
              <TableRow key={i}>
                <TableCell>{d.what}</TableCell>
                <TableCell>{d.here}</TableCell>
                <TableCell>{d.there}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
        {differences.length > MOST && <Box sx={{ mt: 1 }}>{`and ${differences.length - MOST} more`}</Box>}
        {differences.length === 0 && <p>Only names, notes or pinned signals differ.</p>}
        {fault && <p role="alert">{fault}</p>}
      </DialogContent>
      <DialogActions>
        <Button onClick={drop}>Discard</Button>
        <Button onClick={() => void copy()}>Save as a copy</Button>
        <Button color="primary" onClick={() => (onTake(draft), onDone())}>
          Recover
        </Button>
      </DialogActions>
    </Dialog>
  );
}
