'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { kindTitle } from '@/core';
import type { Patch, Short } from '@/core';

interface Props {
  readonly modules: Patch['modules'];
  readonly short: readonly Short[];
}

/** The stages of a patch that a rack has no channel for, and why. */
export function ShortLines({ modules, short }: Props) {
  if (short.length === 0) return null;
  const nameOf = (s: Short): string => {
    const title = kindTitle(s.kind);
    const label = modules.find((m) => m.id === s.module)?.label;
    return label === undefined || label === title ? title : `${label} (${title})`;
  };
  return (
    <Alert severity="warning" data-short sx={{ my: 0.5 }}>
      Missing from the rack:
      {short.map((s) => (
        <Box key={s.module}>{`${nameOf(s)}: ${s.why}.`}</Box>
      ))}
    </Alert>
  );
}
