'use client';
import type { Patch } from '@/core';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import type { EditDesk } from '@/ui/session/edit';

const MacroTables = later(() => import('./MacroTables').then((m) => m.MacroTables));

/** Faders that move several ends; fetched when it is opened. */
export function MacroSection(props: { readonly patch: Patch; readonly edit: EditDesk }) {
  return (
    <Section id="macros" title="Macro controls">
      <MacroTables {...props} />
    </Section>
  );
}
