'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import type { Sheet } from '@/core';
import { DropZone } from '@/ui/parts/DropZone';
import { tell } from '@/ui/parts/messages';
import type { Ticks } from '@/wire/requests';
import { ticksIn } from './ticksIn';

interface Props {
  readonly sheet: Sheet;
  readonly onTicks: (ticks: Ticks) => void;
  readonly onClose: () => void;
}

/** Ticks and readings of a sheet that went away as one file. */
export function BringTicks({ sheet, onTicks, onClose }: Props) {
  const [fault, setFault] = useState('');
  const take = (file: File): void =>
    void ticksIn(sheet, file)
      .then((ticks) => {
        onTicks(ticks);
        tell(`${Object.values(ticks).filter((t) => t.done).length} ticks imported.`);
        onClose();
      })
      .catch((error: unknown) => setFault(error instanceof Error ? error.message : String(error)));
  return (
    <Dialog open onClose={onClose} aria-labelledby="ticks-title" maxWidth="sm" fullWidth>
      <DialogTitle id="ticks-title">Import ticks</DialogTitle>
      <DialogContent>
        <DropZone
          says="The ticks file saved on the phone, or a photo of its QR code"
          endings={['.json', '.png', '.jpg', '.jpeg']}
          onFile={take}
        />
        {fault && <Alert severity="error">{`${fault} Nothing was changed.`}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
