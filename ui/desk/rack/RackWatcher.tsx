'use client';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import { channelFaults, channelLimits } from '@/core';
import { useChosenRack, useRackDocument } from '@/ui/parts/chosenRack';
import { channels } from '@/ui/session/channels';
import type { DeskStore } from '@/ui/session/desk';

/** Tells the desk what the chosen rack allows; shows nothing. Fetched only where a rack is chosen. */
export function RackWatcher({ desk }: { readonly desk: DeskStore }) {
  const { id } = useChosenRack();
  const rack = useRackDocument(id);
  const patch = useStore(desk, (s) => s.patch);
  useEffect(() => {
    const told = rack && { limits: channelLimits(patch, rack), faults: channelFaults(patch, rack) };
    channels.setState({ rack, limits: told?.limits ?? null, faults: told?.faults ?? [] });
  }, [patch, rack]);
  useEffect(() => () => channels.setState({ rack: null, limits: null, faults: [] }), []);
  return null;
}
