'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import { seatOffers, settledEdits } from '@/core';
import type { Patch, Rack, SeatOffer } from '@/core';
import { SelectField } from '@/ui/parts/SelectField';
import { channels } from '@/ui/session/channels';
import type { EditDesk } from '@/ui/session/edit';
import { ink } from '@/ui/theme/tokens';
import { RackChoice } from './RackChoice';

export interface SeatProps {
  readonly id: string;
  readonly label: string;
  readonly patch: Patch;
  readonly edit: EditDesk;
}

/** The channels that a stage could sit on, and what it can be set to where it sits. */
export function Seat(props: SeatProps) {
  const { rack, faults } = useStore(channels);
  const { id, label, patch, edit } = props;
  const own = faults.filter((f) => f.module === id);
  return (
    <>
      <RackChoice />
      {rack && <Offers {...props} rack={rack} />}
      {own.map((f) => {
        const edits = rack ? settledEdits(patch, rack, id) : [];
        return (
          <Alert key={f.message} severity="warning" data-channel-fault sx={{ mt: 1 }}>
            {`Not possible on ${f.rack}: ${f.message}.`}
            {edits.length > 0 && (
              <Button onClick={() => edit(`Use the nearest settings for ${label}`, edits)} sx={{ mt: 0.5 }}>
                Use the nearest available settings
              </Button>
            )}
          </Alert>
        );
      })}
    </>
  );
}

const told = ({ name, standIn, takenBy }: SeatOffer): string =>
  `${name}${standIn ? ', substitute' : ''}${takenBy ? `, used by ${takenBy}` : ''}`;

function Offers({ id, label, patch, edit, rack }: SeatProps & { readonly rack: Rack }) {
  const offers = useMemo(() => seatOffers(patch, rack, id), [patch, rack, id]);
  const now = patch.modules.find((m) => m.id === id)?.rack ?? '';
  const known = now === '' || offers.some((o) => o.rack === now);
  const sit = (place: string): void => {
    const offer = offers.find((o) => o.rack === place);
    const m = patch.modules.find((x) => x.id === id);
    if (offer) edit(`Assign ${label} to ${offer.name}`, offer.edits);
    else if (m) {
      const { rack: _rack, ...loose } = m;
      edit(`Unassign ${label}`, [{ do: 'replace', module: loose }]);
    }
  };
  const standIn = offers.find((o) => o.rack === now)?.standIn;
  return (
    <>
      <SelectField
        label="Channel"
        value={now}
        options={[
          ['', 'Not assigned'] as const,
          ...(known ? [] : [[now, now] as const]),
          ...offers.map((o) => [o.rack, told(o)] as const),
        ]}
        onChange={sit}
        sx={{ width: '100%', mt: 0.75 }}
      />
      {standIn && <Box sx={{ fontSize: 13, color: ink.softInk, mt: 0.5 }}>{standIn}</Box>}
      {offers.length === 0 && (
        <Box sx={{ color: ink.softInk, mt: 0.5 }}>No channel in this rack supports these settings.</Box>
      )}
    </>
  );
}
