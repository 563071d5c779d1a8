'use client';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import { channelFaults, channelLimits } from '@/core';
import { useKeptRack } from '@/ui/parts/chosenRack';
import { channels } from '@/ui/session/channels';
import type { DeskStore } from '@/ui/session/desk';

/** Tells the editor what the chosen rack allows; shows nothing. Fetched only where a rack is chosen. */
export function RackWatcher({ desk }: { readonly desk: DeskStore }) {
  const { rack, answered } = useKeptRack();
  const patch = useStore(desk, (s) => s.patch);
  useEffect(() => {
    const told = rack && { limits: channelLimits(patch, rack), faults: channelFaults(patch, rack) };
    channels.setState({ rack, limits: told?.limits ?? null, faults: told?.faults ?? [], answered });
  }, [patch, rack, answered]);
  useEffect(() => () => channels.setState({ rack: null, limits: null, faults: [], answered: null }), []);
  return null;
}
