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
import type { FoundPatches, ListedPatch } from '@/wire/patches';

interface Props {
  readonly onClose: () => void;
  readonly onChanged: () => Promise<void>;
}

/** Rows that are read at once. */
const AT_ONCE = 100;

/** The patches that were deleted, as many as are asked for. */
async function deletedPatches(most: number): Promise<FoundPatches> {
  const pages = Array.from({ length: Math.ceil(most / AT_ONCE) }, (_, i) =>
    api.search({ deleted: true, from: i * AT_ONCE, count: AT_ONCE }),
  );
  const found = await Promise.all(pages);
  return { patches: found.flatMap((f) => f.patches), total: found[0]?.total ?? 0, pending: 0 };
}

/** What was deleted: put back, or removed for good after a question. */
export function DeletedPatches({ onClose, onChanged }: Props) {
  const [most, setMost] = useState(AT_ONCE);
  const {
    data: found,
    error,
    refetch,
  } = useQuery({
    queryKey: ['deleted', most],
    queryFn: () => deletedPatches(most),
    staleTime: 0,
    placeholderData: (before) => before,
  });
  const data = found?.patches;
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
        {found && data && data.length < found.total && (
          <Button onClick={() => setMost(most + AT_ONCE)}>{`Show more (${found.total - data.length} left)`}</Button>
        )}
        <UnusedRecordings />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
      {asked && (
        <ForGood
          name={asked.name}
          onClose={() => setAsked(null)}
          onRemove={() => {
            setAsked(null);
            void done(api.removeForGood(asked.id), `“${asked.name}” deleted permanently.`);
          }}
        />
      )}
    </Dialog>
  );
}

interface ForGoodProps {
  readonly name: string;
  readonly onClose: () => void;
  readonly onRemove: () => void;
}

/** Asks before a patch is gone. */
function ForGood({ name, onClose, onRemove }: ForGoodProps) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="for-good-title">
      <DialogTitle id="for-good-title">{`Remove “${name}” permanently?`}</DialogTitle>
      <DialogContent>
        The patch, its history, its ticks and the recordings that no other patch plays will be gone and can’t be
        restored.
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button color="error" onClick={onRemove}>
          Delete permanently
        </Button>
      </DialogActions>
    </Dialog>
  );
}
