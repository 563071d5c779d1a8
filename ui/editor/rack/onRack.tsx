import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import { useState } from 'react';
import { useStore } from 'zustand';
import type { Rack } from '@/core';
import { settings } from '@/ui/parts/settings';
import { channels } from '@/ui/session/channels';

interface OnRack {
  /** What is planned with; null plans with anything. */
  readonly used: Rack | null;
  /** The rack is on its way: a plan made without it would name what nobody has. */
  readonly coming: boolean;
  readonly rack: Rack | null;
  readonly onRack: boolean;
  readonly setOnRack: (on: boolean) => void;
}

/** Whether plans use what is free in the chosen rack: they do, until one says otherwise. */
export function useOnRack(): OnRack {
  const kept = useStore(settings, (s) => s.rack);
  const { rack, answered } = useStore(channels);
  const [onRack, setOnRack] = useState(true);
  return { used: onRack ? rack : null, coming: onRack && kept !== '' && answered !== kept, rack, onRack, setOnRack };
}

export function OnRackSwitch({ rack, onRack, setOnRack }: OnRack) {
  if (!rack) return null;
  return (
    <FormControlLabel
      control={<Switch checked={onRack} onChange={(e) => setOnRack(e.target.checked)} />}
      label={`Use only free channels in ${rack.name}`}
    />
  );
}
