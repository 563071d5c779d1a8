'use client';
import IconButton from '@mui/material/IconButton';
import { useColorScheme } from '@mui/material/styles';
import { setSetting } from '@/ui/parts/settings';
import { DarkIcon, LightIcon } from '@/ui/parts/icons';

export function SchemeButton() {
  const { mode, systemMode } = useColorScheme();
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  return (
    <IconButton
      aria-label={dark ? 'Light theme' : 'Dark theme'}
      onClick={() => setSetting('theme', dark ? 'light' : 'dark')}
    >
      {dark ? <LightIcon fontSize="small" /> : <DarkIcon fontSize="small" />}
    </IconButton>
  );
}
