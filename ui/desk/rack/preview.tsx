'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { showRange } from '@/core';
import type { Patch, Proposal } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Ghost } from '../strip/MainStrip';

/** A planned patch that is looked at in the strip before it is taken over, or not. */
export function usePreview(patch: Patch, setGhost: (ghost: Ghost | null) => void) {
  const [looking, setLooking] = useState(false);
  const look = (on: boolean): void => {
    setLooking(on);
    setGhost(on ? { patch } : null);
  };
  return { looking, look };
}

/** What a chain reads at its end, whether that is wanted, and why it is so. */
export function Promised({ reading, met, why }: Pick<Proposal, 'reading' | 'met' | 'why'>) {
  return (
    <>
      {reading && <Box sx={{ fontFamily: fonts.numbers }}>{showRange(reading.low, reading.high, reading.unit)}</Box>}
      <Box sx={{ fontSize: 13, color: met ? ink.good : ink.warning }}>{met ? 'Target met' : 'Closest match'}</Box>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{why}</Box>
    </>
  );
}

interface TakeProps extends ReturnType<typeof usePreview> {
  readonly says: string;
  readonly disabled?: boolean;
  readonly onTake: () => void;
}

/** Takes a plan over, or looks at it first. */
export function TakeOrLook({ says, disabled = false, onTake, looking, look }: TakeProps) {
  const take = (): void => {
    look(false);
    onTake();
  };
  return (
    <Box sx={{ display: 'flex', gap: 0.75, mt: 0.5 }}>
      <Button color="primary" disabled={disabled} onClick={take}>
        {says}
      </Button>
      <Button aria-pressed={looking} onClick={() => look(!looking)}>
        {looking ? 'Stop preview' : 'Preview'}
      </Button>
    </Box>
  );
}
