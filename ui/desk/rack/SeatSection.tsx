'use client';
import dynamic from 'next/dynamic';
import { patiently } from '@/ui/parts/patiently';
import { useStore } from 'zustand';
import { Section } from '@/ui/parts/Section';
import { channels } from '@/ui/session/channels';
import type { SeatProps } from './Seat';

const Seat = dynamic(
  patiently(() => import('./Seat').then((m) => m.Seat)),
  { ssr: false },
);

/** Where a stage sits in the rack; fetched when it is opened. */
export function SeatSection(props: SeatProps) {
  const fault = useStore(channels, (s) => s.faults.some((f) => f.module === props.id));
  return (
    <Section id="seat" title={fault ? 'In the rack: it cannot be set so there' : 'In the rack'} open={fault}>
      <Seat {...props} />
    </Section>
  );
}
