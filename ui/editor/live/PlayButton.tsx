'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useRef, useState } from 'react';
import { useStore } from 'zustand';
import { ActionMenu } from '@/ui/parts/ActionMenu';
import { PlayIcon, StopIcon, UnfoldIcon } from '@/ui/parts/icons';
import { hearing, openSound, playOrStop } from '@/ui/session/hearing';
import type { SoundPart } from '@/ui/session/hearing';

/** What there is beside playing itself, found before anything plays. */
const PARTS: readonly (readonly [part: SoundPart | null, says: string])[] = [
  [null, 'Listen, level and A/B comparison'],
  ['controls', 'Faders, MIDI learn and recording'],
  ['keyboard', 'Keyboard'],
  ['pad', 'XY pad'],
  ['listening', 'Mute, solo, loop and balance'],
  ['export', 'Export audio…'],
];

const openBar = (): void => hearing.setState({ open: true });

/** Plays the patch, or silences it; beside it, all else that can be done with its sound. */
export function PlayButton() {
  const playing = useStore(hearing, (s) => s.playing);
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const says = playing ? 'Stop' : 'Play';
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', flexShrink: 0 }}>
      <Button
        aria-label={says}
        title={`${says} (Space)`}
        onClick={playOrStop}
        startIcon={playing ? <StopIcon /> : <PlayIcon />}
        sx={{ whiteSpace: 'nowrap', '& .MuiButton-startIcon': { mr: { xs: 0, sm: 0.5 }, ml: 0 } }}
      >
        <Box component="span" sx={{ display: { xs: 'none', sm: 'inline' } }}>
          {says}
        </Box>
      </Button>
      <IconButton ref={button} aria-label="Sound tools" aria-haspopup="menu" onClick={() => setOpen(true)}>
        <UnfoldIcon fontSize="small" />
      </IconButton>
      <ActionMenu
        anchor={() => button.current}
        open={open}
        onClose={() => setOpen(false)}
        entries={PARTS.map(([part, says]) => [says, part ? () => openSound(part) : openBar] as const)}
      />
    </Box>
  );
}
