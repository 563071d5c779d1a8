'use client';
import { LIMITS } from '@/core';
import { EditableName } from '@/ui/parts/EditableName';
import type { EditDesk } from '@/ui/session/edit';

interface Props {
  readonly label: string;
  readonly name: string;
  readonly size: number;
  readonly edit: EditDesk;
}

/** The patch's own name, typed over where it stands. */
export function PatchName({ label, name, size, edit }: Props) {
  return (
    <EditableName
      label={label}
      value={name}
      longest={LIMITS.name}
      size={size}
      onRename={(next) => edit(`Rename to ${next}`, [{ do: 'put', put: { name: next } }])}
    />
  );
}
