'use client';
import { idOf } from '@/core';
import type { Patch } from '@/core';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import type { EditDesk } from '@/ui/session/edit';

const HandLanes = later(() => import('./HandLanes').then((m) => m.HandLanes));

interface Props {
  readonly patch: Patch;
  /** Of one stage; left out: all of the patch. */
  readonly id?: string;
  readonly edit: EditDesk;
}

/** Hands on knobs; fetched when it is opened. */
export function HandsSection({ patch, id, edit }: Props) {
  const count = patch.hands.filter((h) => id === undefined || idOf(h.at) === id).length;
  if (id === undefined && count === 0) return null;
  return (
    <Section
      id={id === undefined ? 'lanes' : 'hands'}
      title={count > 0 ? `Knob automation: ${count}` : 'Knob automation'}
      open={id === undefined}
    >
      <HandLanes patch={patch} edit={edit} {...(id !== undefined && { id })} />
    </Section>
  );
}
