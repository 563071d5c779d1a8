import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { inMegabytes } from '@/wire/sizes';
import type { Holdings } from '@/wire/library';
import { FileButton } from '@/ui/parts/FileButton';
import { libraryApi } from '@/ui/parts/libraryApi';
import { tellFault } from '@/ui/parts/messages';
import { fonts, ink } from '@/ui/theme/tokens';
import { RestoreDialog } from './RestoreDialog';
import { Row } from './Row';
import { agoText, heldText } from './libraryText';

/** Where the library is, what it holds, and the ways out of it and into it. */
export function LibrarySection() {
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: ['library'], queryFn: libraryApi.state, staleTime: 0 });
  const [making, setMaking] = useState(false);
  const backUp = (): void => {
    setMaking(true);
    libraryApi
      .backUp()
      .then(() => queries.invalidateQueries({ queryKey: ['library'] }))
      .catch(tellFault)
      .finally(() => setMaking(false));
  };
  if (error) return <Alert severity="error">{error.message}</Alert>;
  if (!data) return null;
  return (
    <>
      <Row title="Folder">
        <Box sx={{ fontFamily: fonts.numbers, overflowWrap: 'anywhere' }}>{data.folder}</Box>
      </Row>
      <Row title="Holds">
        <span>{`${heldText(data.holdings)}; ${inMegabytes(data.bytes)}`}</span>
      </Row>
      <Row title="Last backup">
        <Box data-last-backup>{agoText(data)}</Box>
        <Button variant="contained" disabled={making} onClick={backUp}>
          {making ? 'Backing up…' : 'Back up'}
        </Button>
      </Row>
      <Row
        title="Restore"
        says="Replaces the whole library with a backup. Your present library is kept as a file in the folder."
      >
        <RestoreFrom />
      </Row>
    </>
  );
}

/** A backup that is brought in, then asked about. */
function RestoreFrom() {
  const [share, setShare] = useState<number | null>(null);
  const [held, setHeld] = useState<{ readonly name: string; readonly holdings: Holdings } | null>(null);
  const going = useRef(true);
  const bringIn = async (file: File): Promise<void> => {
    going.current = true;
    setShare(0);
    try {
      const holdings = await libraryApi.upload(file, (now) => (setShare(now), going.current));
      if (holdings) setHeld({ name: file.name, holdings });
    } catch (fault) {
      tellFault(fault);
      await libraryApi.discard().catch(() => undefined);
    } finally {
      setShare(null);
    }
  };
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
      {share === null ? (
        <FileButton label="Restore from a backup…" says="A backup" accept=".sqlite" onFile={bringIn} />
      ) : (
        <>
          <LinearProgress
            variant="determinate"
            value={100 * share}
            aria-label="Reading the backup"
            sx={{ width: 160, color: ink.softInk }}
          />
          <Button onClick={() => (going.current = false)}>Cancel</Button>
        </>
      )}
      {held && <RestoreDialog {...held} onClose={() => setHeld(null)} />}
    </Box>
  );
}
