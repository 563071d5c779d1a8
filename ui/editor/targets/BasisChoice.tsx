'use client';
import type { Target } from '@/core';
import { SelectField } from '@/ui/parts/SelectField';
import type { EditDesk } from '@/ui/session/edit';

type Based = Extract<Target, { basis?: unknown }>;

interface Props {
  readonly target: Based;
  readonly place: string;
  readonly edit: EditDesk;
}

const BASES = [
  ['arrives', 'What arrives'],
  ['bound', 'Guaranteed range'],
] as const;

/** What a target's figures are of, where what arrives is not the guaranteed range. */
export function BasisChoice({ target, place, edit }: Props) {
  const key = { at: target.at, ...(target.id !== undefined && { id: target.id }) };
  return (
    <SelectField
      label={`What the target at ${place} is about`}
      value={target.basis ?? 'bound'}
      options={BASES}
      onChange={(basis) =>
        edit(`Judge target at ${place} by ${basis === 'bound' ? 'the guaranteed range' : 'what arrives'}`, [
          { do: 'target', ...key, target: { ...target, basis } },
        ])
      }
    />
  );
}
