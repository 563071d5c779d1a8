import Box from '@mui/material/Box';
import { memo } from 'react';
import { ink } from '@/ui/theme/tokens';
import type { Pin } from './pins';
import { DASHES } from './view';

interface Props {
  readonly pins: readonly Pin[];
  /** They are not pinned, but what stands in until something is. */
  readonly standIn: boolean;
}

/** Which trace is which. */
export const Legend = memo(function Legend({ pins, standIn }: Props) {
  return (
    <Box
      sx={{
        display: 'flex',
        columnGap: 2,
        flexWrap: 'wrap',
        alignItems: 'center',
        fontSize: 13,
        minHeight: 24,
      }}
    >
      {pins.map((t, i) => (
        <Box
          key={t.socket}
          component="span"
          data-trace={t.socket}
          sx={{ display: 'inline-flex', gap: 0.75, alignItems: 'center' }}
        >
          {t.label}
          <svg width="28" height="6" aria-hidden="true">
            <line x1="0" x2="28" y1="3" y2="3" stroke={ink.trace} strokeWidth="2" strokeDasharray={DASHES[i]} />
          </svg>
        </Box>
      ))}
      {standIn && (
        <Box component="span" sx={{ color: ink.softInk }}>
          {pins.length > 0
            ? 'shown until you pin a signal'
            : 'Pin an input or output of a stage to see its trace here.'}
        </Box>
      )}
    </Box>
  );
});
