'use client';
import { NOISE, usualNoise } from '@/core';
import type { GraphModule, Patch } from '@/core';
import { QuantityField } from '@/ui/parts/QuantityField';
import type { EditDesk } from '@/ui/session/edit';
import { SettingRow } from './SettingRow';

interface Props {
  readonly module: GraphModule;
  readonly patch: Patch;
  readonly edit: EditDesk;
}

/** The noise that each output of a stage adds: what its datasheet or a measurement says. */
export function NoiseField({ module: { id, kind, label }, patch, edit }: Props) {
  const usual = usualNoise(kind);
  return (
    <SettingRow label="Output noise, RMS">
      <QuantityField
        label={`Output noise of ${label}`}
        unit={'\u00b5V'}
        value={patch.modules.find((m) => m.id === id)?.noiseMicrovolts ?? usual}
        min={0}
        max={NOISE.most}
        width={112}
        onChange={(v) =>
          edit(`Set output noise of ${label}`, [{ do: 'noise', module: id, microvolts: v === usual ? null : v }])
        }
      />
    </SettingRow>
  );
}
