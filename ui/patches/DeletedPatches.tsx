'use client';
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
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { dateTime } from '@/ui/parts/dates';
import { tell, tellFault } from '@/ui/parts/messages';
import { api } from '@/ui/parts/api';
import { UnusedRecordings } from './UnusedRecordings';
import type { ListedPatch } from '@/wire/patches';

interface Props {
  readonly onClose: () => void;
  readonly onChanged: () => Promise<void>;
}

/** What was deleted: put back, or removed for good after a question. */
export function DeletedPatches({ onClose, onChanged }: Props) {
  const { data, error, refetch } = useQuery({ queryKey: ['deleted'], queryFn: () => api.list(true), staleTime: 0 });
  const [asked, setAsked] = useState<ListedPatch | null>(null);
  const done = async (work: Promise<unknown>, says: string): Promise<void> => {
    try {
      await work;
      tell(says);
      await Promise.all([refetch(), onChanged()]);
    } catch (fault) {
      tellFault(fault);
    }
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="deleted-patches-title" maxWidth="sm" fullWidth>
      <DialogTitle id="deleted-patches-title">Deleted patches</DialogTitle>
      <DialogContent>
        {error && <p role="alert">{error.message}</p>}
        {data?.length === 0 && <p>No deleted patches.</p>}
        {data && data.length > 0 && (
          <Table size="small" aria-label="Deleted patches">
            <TableHead>
              <TableRow>
                <TableCell>name</TableCell>
                <TableCell>deleted</TableCell>
                <TableCell />
              </TableRow>
            </TableHead>
            <TableBody>
              {data.map((p) => (
                <TableRow key={p.id} data-deleted={p.id}>
                  <TableCell>{p.name}</TableCell>
                  <TableCell>{dateTime(p.deletedAt)}</TableCell>
                  <TableCell align="right" sx={{ whiteSpace: 'nowrap', '& button + button': { ml: 1 } }}>
                    <Button onClick={() => void done(api.restore(p.id), `“${p.name}” restored.`)}>Restore</Button>
                    <Button onClick={() => setAsked(p)}>Delete permanently</Button>
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        )}
        <UnusedRecordings />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
      {asked && (
        <Dialog open onClose={() => setAsked(null)} aria-labelledby="for-good-title">
          <DialogTitle id="for-good-title">{`Remove “${asked.name}” permanently?`}</DialogTitle>
          <DialogContent>
            The patch, its history, its ticks and the recordings that no other patch plays will be gone and can’t be
            restored.
          </DialogContent>
          <DialogActions>
            <Button onClick={() => setAsked(null)}>Cancel</Button>
            <Button
              color="error"
              onClick={() => {
                setAsked(null);
                void done(api.removeForGood(asked.id), `“${asked.name}” deleted permanently.`);
              }}
            >
              Delete permanently
            </Button>
          </DialogActions>
        </Dialog>
      )}
    </Dialog>
  );
}
