'use client';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import type { DeskStore } from '@/ui/session/desk';

const SpreadBody = later(() => import('./SpreadBody').then((m) => m.SpreadBody));

interface Props {
  readonly desk: DeskStore;
  /** The socket whose path is shown. */
  readonly shown: string | null;
}

/** What knobs and gains that are a little off make of the end that is shown; fetched when it is opened. */
export const SpreadSection = memo(function SpreadSection({ desk, shown }: Props) {
  if (shown === null) return null;
  return (
    <Box component="section" aria-label="Tolerance">
      <Section id="spread" title="Tolerance">
        <SpreadBody desk={desk} shown={shown} />
      </Section>
    </Box>
  );
});
