'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { showNumber, withUnit } from '@/core';
import type { EditDesk } from '@/ui/session/edit';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly seconds: number;
  readonly edit: EditDesk;
}

/** The window does not hold the whole movement: what arrives is not known yet. */
export function TooShort({ seconds, edit }: Props) {
  const label = `Simulate ${withUnit(showNumber(seconds, 0), 's')}`;
  return (
    <Box data-too-short sx={{ mt: 1, fontSize: 13, color: ink.warning }}>
      The simulation is too short for the whole movement.
      <Button onClick={() => edit(label, [{ do: 'settings', settings: { duration: seconds } }])} sx={{ mt: 0.5 }}>
        {label}
      </Button>
    </Box>
  );
}
