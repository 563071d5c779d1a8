'use client';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import { useState } from 'react';
import { takeKeys } from '@/ui/session/typeahead';
import { Chooser } from '@/ui/parts/Chooser';
import type { Choice } from '@/ui/parts/Chooser';

export interface PaletteEntry extends Choice {
  run(): void;
}

/** Everything that can be done or gone to, found by typing. */
export function Palette({ entries, onClose }: { entries: readonly PaletteEntry[]; onClose: () => void }) {
  const [start] = useState(takeKeys);
  return (
    <Dialog open onClose={onClose} aria-label="Search stages, destinations and commands" fullWidth maxWidth="sm">
      <DialogContent>
        <Chooser
          label="Search stages, destinations and commands"
          choices={entries}
          start={start}
          onCancel={onClose}
          onPick={(choice) => {
            onClose();
            entries.find((e) => e.key === choice.key)?.run();
          }}
        />
      </DialogContent>
    </Dialog>
  );
}
