'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { macrosIn } from '@/core';
import type { Macro, Patch } from '@/core';
import { counted } from '@/ui/parts/counted';
import { later } from '@/ui/parts/later';
import type { EditDesk } from '@/ui/session/edit';

const MacroDialog = later(() => import('./MacroDialog').then((m) => m.MacroDialog));

interface Props {
  readonly patch: Patch;
  readonly edit: EditDesk;
}

/** The faders of a patch that move several ends, each as its table. */
export function MacroTables({ patch, edit }: Props) {
  const macros = useMemo(() => macrosIn(patch), [patch]);
  const [open, setOpen] = useState<Macro | 'new' | null>(null);
  return (
    <>
      {macros.map((m) => (
        <Box key={m.fader} data-macro={m.fader} sx={{ display: 'flex', alignItems: 'center', gap: 1, py: 0.5 }}>
          <Box sx={{ flex: 1, minWidth: 0 }}>{`${m.name}: ${counted(m.rows.length, 'end')}`}</Box>
          <Button aria-label={`Edit macro control ${m.name}`} onClick={() => setOpen(m)}>
            Edit
          </Button>
        </Box>
      ))}
      <Button onClick={() => setOpen('new')}>New macro</Button>
      {open !== null && (
        <MacroDialog patch={patch} edit={edit} macro={open === 'new' ? null : open} onClose={() => setOpen(null)} />
      )}
    </>
  );
}
