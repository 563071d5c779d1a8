'use client';
import type { Patch } from '@/core';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';

const LoudnessChart = later(() => import('./LoudnessChart').then((m) => m.LoudnessChart));

/** How loud it gets over time, in the schools of amplifiers and contours; worked out when it is opened. */
export function LoudnessSection({ id, patch }: { readonly id: string; readonly patch: Patch }) {
  return (
    <Section id="loudness" title="Level over time">
      <LoudnessChart id={id} patch={patch} />
    </Section>
  );
}
