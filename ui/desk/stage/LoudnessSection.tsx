'use client';
import dynamic from 'next/dynamic';
import { patiently } from '@/ui/parts/patiently';
import type { Patch } from '@/core';
import { Section } from '@/ui/parts/Section';

const LoudnessChart = dynamic(
  patiently(() => import('./LoudnessChart').then((m) => m.LoudnessChart)),
  { ssr: false },
);

/** How loud it gets over time, in the schools of amplifiers and contours; worked out when it is opened. */
export function LoudnessSection({ id, patch }: { readonly id: string; readonly patch: Patch }) {
  return (
    <Section id="loudness" title="Loudness over time">
      <LoudnessChart id={id} patch={patch} />
    </Section>
  );
}
