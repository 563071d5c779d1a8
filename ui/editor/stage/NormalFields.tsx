'use client';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { Normal } from '@/core';
import { QuantityField } from '@/ui/parts/QuantityField';
import { SelectField } from '@/ui/parts/SelectField';
import type { EditDesk } from '@/ui/session/edit';
import { SettingRow } from './SettingRow';
import type { Option } from './sockets';

interface Props {
  readonly socket: string;
  /** As people call it. */
  readonly name: string;
  /** The kind's own normal, volts. */
  readonly own: number;
  readonly normal: Normal | null;
  readonly sockets: readonly Option[];
  readonly edit: EditDesk;
}

const MOST = 24;

/** What an input gets while nothing is plugged in: its own, a steady voltage, or another socket's signal. */
export function NormalFields({ socket, name, own, normal, sockets, edit }: Props) {
  const set = (next: Normal | null): void =>
    edit(`Set normal of ${name}`, [{ do: 'normal', to: socket, normal: next }]);
  const way = normal === null ? 'own' : 'volts' in normal ? 'volts' : normal.from;
  const choose = (next: string): void => {
    if (next === 'own') set(null);
    else if (next === 'volts') set({ to: socket, volts: 0 });
    else set({ to: socket, from: next });
  };
  return (
    <>
      <SettingRow label="Normal">
        <SelectField
          label={`Normal of ${name}`}
          value={way}
          options={[
            ['own', `Default (${own} V)`],
            ['volts', 'Fixed voltage'],
            ...sockets.map((s) => [s.socket, s.name] as const),
          ]}
          onChange={choose}
          sx={{ width: 180 }}
        />
      </SettingRow>
      {normal && 'volts' in normal && (
        <SettingRow label="Voltage">
          <QuantityField
            label={`Normal voltage of ${name}`}
            unit="V"
            value={normal.volts}
            min={-MOST}
            max={MOST}
            width={112}
            onChange={(v) => set({ to: socket, volts: v })}
          />
        </SettingRow>
      )}
      {normal && 'from' in normal && (
        <FormControlLabel
          label="Also broken when the source is patched"
          control={
            <Checkbox
              checked={normal.brokenBy === 'source'}
              onChange={(_, on) => set({ to: socket, from: normal.from, ...(on && { brokenBy: 'source' as const }) })}
            />
          }
        />
      )}
    </>
  );
}
