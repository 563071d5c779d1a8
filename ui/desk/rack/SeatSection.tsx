'use client';
import dynamic from 'next/dynamic';
import { Section } from '@/ui/parts/Section';
import type { SeatProps } from './Seat';

const Seat = dynamic(() => import('./Seat').then((m) => m.Seat), { ssr: false });

/** Where a stage sits in the rack; fetched when it is opened. */
export function SeatSection(props: SeatProps) {
  return (
    <Section id="seat" title="In the rack">
      <Seat {...props} />
    </Section>
  );
}
