'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo, useRef, useState } from 'react';
import { ActionMenu } from '@/ui/parts/ActionMenu';
import { glossary } from '@/ui/parts/glossary';
import type { Task } from '../commands/tasks';

interface Props {
  /** The end whose chain can be copied; null where there is none. */
  readonly end: string | null;
  readonly begin: (task: Task | null) => void;
}

/** What is done with ends: one more, or the chain of this one to another. */
export const EndActions = memo(function EndActions({ end, begin }: Props) {
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const copy = (mirrored: boolean): void => begin({ do: 'copy', from: end ?? '', mirrored });
  return (
    <Box sx={{ display: 'flex', gap: 0.75, px: 1.75, pt: 1 }}>
      <Button onClick={() => begin({ do: 'end' })}>Add destination</Button>
      {end !== null && (
        <>
          <Button ref={button} aria-haspopup="menu" onClick={() => setOpen(true)}>
            Copy path
          </Button>
          <ActionMenu
            anchor={() => button.current}
            open={open}
            onClose={() => setOpen(false)}
            entries={[
              ['To another destination', () => copy(false)],
              ['To another destination, mirrored', () => copy(true), glossary.mirrored],
            ]}
          />
        </>
      )}
    </Box>
  );
});
