'use client';
import { OHMS, placeName, socketAt } from '@/core';
import type { Patch } from '@/core';
import { QuantityField } from '@/ui/parts/QuantityField';
import type { EditDesk } from '@/ui/session/edit';
import { SettingRow } from './SettingRow';

interface Props {
  readonly module: string;
  readonly side: 'inputOhms' | 'outputOhms';
  readonly name: string;
  readonly patch: Patch;
  readonly edit: EditDesk;
}

/** How much an input loads what is plugged into it, or how much an output gives way under its load. */
export function OhmsField({ module: id, side, name, patch, edit }: Props) {
  const given = patch.modules.find((m) => m.id === id)?.[side]?.[name];
  const usual = side === 'inputOhms' ? OHMS.input : OHMS.output;
  const at = socketAt(id, name);
  return (
    <SettingRow label={side === 'inputOhms' ? 'Input impedance' : 'Output impedance'}>
      <QuantityField
        label={`Impedance of ${placeName(patch.modules, at)}`}
        unit={'\u03a9'}
        value={given ?? usual}
        min={side === 'inputOhms' ? 1 : 0}
        max={OHMS.max}
        width={112}
        onChange={(v) =>
          edit(`Set impedance of ${placeName(patch.modules, at)}`, [
            { do: 'ohms', module: id, side, socket: name, ohms: v === usual ? null : v },
          ])
        }
      />
    </SettingRow>
  );
}
