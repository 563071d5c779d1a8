import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { libraryApi } from '@/ui/parts/libraryApi';
import { tellFault } from '@/ui/parts/messages';
import type { Holdings } from '@/wire/library';
import { heldText } from './libraryText';

interface Props {
  readonly name: string;
  readonly holdings: Holdings;
  readonly onClose: () => void;
}

/** Asks before a backup takes the library's place, and says where the former library is. */
export function RestoreDialog({ name, holdings, onClose }: Props) {
  const queries = useQueryClient();
  const router = useRouter();
  const [aside, setAside] = useState<string | null>(null);
  const [working, setWorking] = useState(false);
  const cancel = (): void => {
    void libraryApi.discard().catch(() => undefined);
    onClose();
  };
  const restore = async (): Promise<void> => {
    setWorking(true);
    try {
      const done = await libraryApi.restore();
      setAside(done.aside);
    } catch (fault) {
      tellFault(fault);
      onClose();
    }
  };
  // Nothing that a page holds is of the library that is there now.
  const reopen = (): void => {
    queries.clear();
    router.push('/');
  };
  if (aside !== null)
    return (
      <Dialog open aria-labelledby="restored-title">
        <DialogTitle id="restored-title">Backup restored</DialogTitle>
        <DialogContent sx={{ overflowWrap: 'anywhere' }}>{`Your former library is kept as ${aside}.`}</DialogContent>
        <DialogActions>
          <Button variant="contained" onClick={reopen}>
            Open the library
          </Button>
        </DialogActions>
      </Dialog>
    );
  return (
    <Dialog open onClose={working ? undefined : cancel} aria-labelledby="restore-title">
      <DialogTitle id="restore-title">{`Replace your library with “${name}”?`}</DialogTitle>
      <DialogContent>
        {`The backup holds ${heldText(holdings)}. It replaces everything in your library, which is first copied to a file in its folder. Close other tabs with patches open.`}
      </DialogContent>
      <DialogActions>
        <Button disabled={working} onClick={cancel}>
          Cancel
        </Button>
        <Button variant="contained" disabled={working} onClick={() => void restore()}>
          {working ? 'Restoring…' : 'Replace'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
