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
      title="Gains, offsets and pointers as calibration found them, in predictions, solver and sheet"
    />
  );
}
