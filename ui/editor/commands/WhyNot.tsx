'use client';
import Box from '@mui/material/Box';
import { useStore } from 'zustand';
import { hint } from '@/ui/session/hint';
import { ink } from '@/ui/theme/tokens';

/** Why a key did nothing, for a moment, where the eye is. */
export function WhyNot() {
  const shown = useStore(hint, (s) => s.shown);
  return (
    <Box role="status" aria-live="polite" data-why-not={shown?.text}>
      {shown && (
        <Box
          sx={{
            position: 'fixed',
            left: shown.left,
            top: shown.top,
            maxWidth: 250,
            px: 1.25,
            py: 0.75,
            fontSize: 13,
            background: ink.ink,
            color: ink.paper,
            borderRadius: 1,
            zIndex: 10,
          }}
        >
          {shown.text}
        </Box>
      )}
    </Box>
  );
}
