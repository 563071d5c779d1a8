'use client';
import IconButton from '@mui/material/IconButton';
import { useColorScheme } from '@mui/material/styles';
import { DarkIcon, LightIcon } from '@/ui/parts/icons';

export function SchemeButton() {
  const { mode, systemMode, setMode } = useColorScheme();
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  return (
    <IconButton aria-label={dark ? 'Light theme' : 'Dark theme'} onClick={() => setMode(dark ? 'light' : 'dark')}>
      {dark ? <LightIcon fontSize="small" /> : <DarkIcon fontSize="small" />}
    </IconButton>
  );
}
