'use client';
import Box from '@mui/material/Box';
import { showRange } from '@/core';
import type { Proposal } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';

/** What a chain reads at its end, whether that is wanted, and why it is so. */
export function Promised({ reading, met, why }: Pick<Proposal, 'reading' | 'met' | 'why'>) {
  return (
    <>
      {reading && (
        <Box sx={{ fontFamily: fonts.numbers }}>{showRange(reading.arrivesLow, reading.arrivesHigh, reading.unit)}</Box>
      )}
      <Box sx={{ fontSize: 13, color: met ? ink.good : ink.warning }}>{met ? 'Target met' : 'Closest match'}</Box>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{why}</Box>
    </>
  );
}
