'use client';
import { memo } from 'react';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import type { DeskStore } from '@/ui/session/desk';

const Tonight = later(() => import('./Tonight').then((m) => m.Tonight));

/** Whether the patch can be patched with what one owns; fetched when it is opened. */
export const TonightSection = memo(function TonightSection({ desk }: { readonly desk: DeskStore }) {
  return (
    <Section id="tonight" title="Rack check">
      <Tonight desk={desk} />
    </Section>
  );
});
