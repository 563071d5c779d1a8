'use client';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import { useStore } from 'zustand';
import { placesOf } from '@/core';
import type { Rack } from '@/core';
import { setSetting, settings } from './settings';

/** Predictions with the rack's modules as they were measured; where nothing was, there is nothing to switch. */
export function MeasuredSwitch({ rack }: { readonly rack: Rack | null }) {
  const on = useStore(settings, (s) => s.asMeasured);
  if (!rack || !placesOf(rack).some((p) => p.channel.measured)) return null;
  return (
    <FormControlLabel
      control={<Switch checked={on} onChange={(e) => setSetting('asMeasured', e.target.checked)} />}
      label="Modules as measured"
      title="Predictions, solver and patch sheet use the gains, offsets and pointer errors that calibration measured"
    />
  );
}
