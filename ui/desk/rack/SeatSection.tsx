'use client';
import { useStore } from 'zustand';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import { channels } from '@/ui/session/channels';
import type { SeatProps } from './Seat';

const Seat = later(() => import('./Seat').then((m) => m.Seat));

/** Where a stage sits in the rack; fetched when it is opened. */
export function SeatSection(props: SeatProps) {
  const fault = useStore(channels, (s) => s.faults.some((f) => f.module === props.id));
  return (
    <Section id="seat" title={fault ? 'Rack channel: settings not available' : 'Rack channel'} open={fault}>
      <Seat {...props} />
    </Section>
  );
}
