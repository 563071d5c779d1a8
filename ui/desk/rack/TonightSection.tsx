'use client';
import dynamic from 'next/dynamic';
import { patiently } from '@/ui/parts/patiently';
import { Section } from '@/ui/parts/Section';
import type { DeskStore } from '@/ui/session/desk';

const Tonight = dynamic(
  patiently(() => import('./Tonight').then((m) => m.Tonight)),
  { ssr: false },
);

/** Whether the patch can be patched with what one owns; fetched when it is opened. */
export function TonightSection({ desk }: { readonly desk: DeskStore }) {
  return (
    <Section id="tonight" title="Can it be patched tonight?">
      <Tonight desk={desk} />
    </Section>
  );
}
