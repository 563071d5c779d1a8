'use client';
import IconButton from '@mui/material/IconButton';
import { useStore } from 'zustand';
import { PlayIcon, StopIcon } from '@/ui/parts/icons';
import { hearing, playOrStop } from '@/ui/session/hearing';

/** Hears the patch, or silences it. */
export function PlayButton() {
  const playing = useStore(hearing, (s) => s.playing);
  const says = playing ? 'Stop' : 'Play (Space)';
  return (
    <IconButton aria-label={says} title={`${says} (Space)`} onClick={playOrStop}>
      {playing ? <StopIcon /> : <PlayIcon />}
    </IconButton>
  );
}
