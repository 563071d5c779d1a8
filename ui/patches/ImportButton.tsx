'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { FileButton } from '@/ui/parts/FileButton';
import type { Document } from '@/wire/patches';
import { readFile } from './readFile';

interface Faults {
  readonly file: string;
  readonly lines: readonly string[];
}

/** How many faults are told at once. */
const MOST = 20;

/** Brings patches in from a file; what is wrong with it is told line by line. */
export function ImportButton({ onImported }: { onImported: (documents: readonly Document[]) => void }) {
  const [faults, setFaults] = useState<Faults | null>(null);
  const read = async (file: File): Promise<void> => {
    const result = await readFile(file);
    if (result.ok) onImported(result.value);
    else setFaults({ file: file.name, lines: result.errors });
  };
  return (
    <>
      <FileButton
        accept=".json,.zip,.dot,.gv,application/json,application/zip,text/vnd.graphviz"
        says="Patch file"
        onFile={read}
      />
      <Dialog open={faults !== null} onClose={() => setFaults(null)} aria-labelledby="import-title">
        <DialogTitle id="import-title">{`Couldn’t import ${faults?.file ?? ''}`}</DialogTitle>
        <DialogContent>
          <p>Nothing was changed. Fix these errors in the file, then import it again:</p>
          <ul data-testid="import-faults">
            {faults?.lines.slice(0, MOST).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          {faults && faults.lines.length > MOST && <p>{`and ${faults.lines.length - MOST} more`}</p>}
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setFaults(null)}>Close</Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
