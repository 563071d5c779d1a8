'use client';
import Box from '@mui/material/Box';
import type { Normal } from '@/core';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { QuantityField } from '@/ui/parts/QuantityField';
import { ink } from '@/ui/theme/tokens';
import type { EditDesk } from '@/ui/session/edit';

/** A socket that can be chosen, and what it is called. */
export interface Option {
  readonly socket: string;
  readonly name: string;
}

interface Props {
  readonly socket: string;
  /** The kind's own normal, volts. */
  readonly own: number;
  readonly normal: Normal | null;
  readonly sockets: readonly Option[];
  readonly edit: EditDesk;
}

const MOST = 24;

/** What an input gets while nothing is plugged in: its own, a steady voltage, or another socket's signal. */
export function NormalFields({ socket, own, normal, sockets, edit }: Props) {
  const set = (next: Normal | null): void => edit(`normal of ${socket}`, [{ do: 'normal', to: socket, normal: next }]);
  const way = normal === null ? 'own' : 'volts' in normal ? 'volts' : normal.from;
  const volts = normal && 'volts' in normal ? normal.volts : 0;
  return (
    <Box sx={{ pl: 2, pb: 0.75, display: 'grid', gap: 0.5 }}>
      <Box component="label" sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <Box component="span" sx={{ color: ink.softInk }}>
          normal
        </Box>
        <Box
          component="select"
          aria-label={`Normal of ${socket}`}
          value={way}
          onChange={(e) => {
            if (e.target.value === 'own') set(null);
            else if (e.target.value === 'volts') set({ to: socket, volts: 0 });
            else set({ to: socket, from: e.target.value });
          }}
          sx={{ ...fieldStyle, flex: 1, minWidth: 0 }}
        >
          <option value="own">{`its own, ${own} V`}</option>
          <option value="volts">a steady voltage</option>
          {sockets.map((s) => (
            <option key={s.socket} value={s.socket}>
              {s.name}
            </option>
          ))}
        </Box>
      </Box>
      {way === 'volts' && (
        <Box component="label">
          volts{' '}
          <QuantityField
            label={`Normal volts of ${socket}`}
            unit="V"
            value={volts}
            min={-MOST}
            max={MOST}
            width={72}
            onChange={(v) => set({ to: socket, volts: v })}
          />
        </Box>
      )}
      {normal && 'from' in normal && (
        <Box component="label" sx={{ display: 'flex', gap: 0.75 }}>
          <input
            type="checkbox"
            checked={normal.brokenBy === 'source'}
            onChange={(e) =>
              set({ to: socket, from: normal.from, ...(e.target.checked && { brokenBy: 'source' as const }) })
            }
          />
          broken by a plug in its source too
        </Box>
      )}
    </Box>
  );
}
