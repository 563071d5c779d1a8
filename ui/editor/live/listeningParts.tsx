import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import { useEffect } from 'react';
import { LEAST_DB, MOST_DB, showNumber } from '@/core';
import { setSetting } from '@/ui/parts/settings';
import { fonts } from '@/ui/theme/tokens';
import type { Live } from './live';
import { isSilent } from './transport';

/** What stands wherever sound can be played: the caution before it, its level, and the key that stops it. */

/** While it plays, space stops at once, wherever the focus is but in a text field. */
export function useStopBySpace(live: Live): void {
  useEffect(() => {
    const stop = (e: KeyboardEvent): void => {
      const writes =
        e.target instanceof HTMLElement &&
        e.target.matches('input:not([type=range]), textarea, [contenteditable=true]');
      if (e.code !== 'Space' || e.defaultPrevented || writes || isSilent(live.store.getState().phase)) return;
      e.preventDefault();
      e.stopPropagation();
      if (e.type === 'keydown' && !e.repeat) live.stop();
    };
    window.addEventListener('keydown', stop, true);
    return () => window.removeEventListener('keydown', stop, true);
  }, [live]);
}

/** Said once, before the first sound. */
export function Care() {
  return (
    <Alert
      severity="warning"
      data-care
      action={
        <Button color="primary" onClick={() => setSetting('cared', true)}>
          I’ve turned it down
        </Button>
      }
    >
      Turn your speakers or headphones down first. A patch can jump in level without warning.
    </Alert>
  );
}

export function Level({ db, onLevel }: { readonly db: number; readonly onLevel: (db: number) => void }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, width: 210 }}>
      <Slider
        aria-label="Listening level"
        size="small"
        min={LEAST_DB}
        max={MOST_DB}
        step={1}
        value={db}
        valueLabelDisplay="off"
        getAriaValueText={(v) => `${v} dB`}
        onChange={(_, value) => onLevel(value as number)}
      />
      <Box sx={{ fontFamily: fonts.numbers, fontSize: 13, whiteSpace: 'nowrap', width: 68, textAlign: 'right' }}>
        {db <= LEAST_DB ? 'Off' : `${showNumber(db, 0)}\u00a0dB`}
      </Box>
    </Box>
  );
}
