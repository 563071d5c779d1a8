'use client';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import type { HelpersProps } from './Helpers';

// The solver comes with it.
const Helpers = later(() => import('./Helpers').then((m) => m.Helpers));

/** What can be set at this stage in one go; worked out when it is opened. */
export function HelpersSection(props: HelpersProps) {
  return (
    <Section id="helpers" title="Auto-set">
      <Helpers {...props} />
    </Section>
  );
}
