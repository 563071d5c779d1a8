'use client';
import dynamic from 'next/dynamic';
import { patiently } from '@/ui/parts/patiently';
import type { Patch } from '@/core';
import { Section } from '@/ui/parts/Section';
import type { EditDesk } from '@/ui/session/edit';

const MacroTables = dynamic(
  patiently(() => import('./MacroTables').then((m) => m.MacroTables)),
  { ssr: false },
);

/** Faders that move several ends; fetched when it is opened. */
export function MacroSection(props: { readonly patch: Patch; readonly edit: EditDesk }) {
  return (
    <Section id="macros" title="One fader, many ends">
      <MacroTables {...props} />
    </Section>
  );
}
