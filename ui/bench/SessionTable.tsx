import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { startTransition, useEffect, useState } from 'react';
import { counted } from '@/ui/parts/counted';
import { dateTime } from '@/ui/parts/dates';
import { tell, tellFault } from '@/ui/parts/messages';
import { SafeLink } from '@/ui/parts/SafeLink';
import { fonts, ink } from '@/ui/theme/tokens';
import type { SessionHead } from '@/wire/bench';
import { benchApi } from './benchApi';
import { SimulatedMark } from './SimulatedMark';

interface Props {
  readonly sessions: readonly SessionHead[];
  readonly onChanged: () => void;
}

const row = {
  display: 'grid',
  alignItems: 'center',
  columnGap: 2,
  gridTemplateColumns: {
    xs: 'minmax(0, 1fr) auto',
    md: '170px minmax(180px, 1.4fr) minmax(120px, 1fr) 190px 110px 92px',
  },
  borderBottom: `1px solid ${ink.line}`,
  py: 0.75,
} as const;

/** Rows that are out of sight cost nothing: a year of them opens at once. */
const unseen = { contentVisibility: 'auto', containIntrinsicSize: 'auto 45px' } as const;

/** Rows that are there at once; the others follow when nothing else waits. */
const FIRST = 40;

export function SessionTable({ sessions, onChanged }: Props) {
  const [all, setAll] = useState(false);
  useEffect(() => startTransition(() => setAll(true)), []);
  return (
    <Box role="table" aria-label="Sessions">
      <Box role="row" sx={{ ...row, display: { xs: 'none', md: 'grid' }, color: ink.softInk, fontSize: 13 }}>
        {['Started', 'Patch', 'Rack', 'Readings', 'Attached', ''].map((name) => (
          <Box key={name} role="columnheader">
            {name}
          </Box>
        ))}
      </Box>
      {(all ? sessions : sessions.slice(0, FIRST)).map((s) => (
        <SessionRow key={s.id} session={s} onChanged={onChanged} />
      ))}
    </Box>
  );
}

function SessionRow({ session: s, onChanged }: { readonly session: SessionHead; readonly onChanged: () => void }) {
  const restore = (): void => void benchApi.restore(s.id).then(onChanged).catch(tellFault);
  const remove = (): void =>
    void benchApi
      .remove(s.id)
      .then(onChanged)
      .then(() => tell('Session deleted.', { label: 'Undo', run: restore }))
      .catch(tellFault);
  const wide = { gridColumn: { xs: 1, md: 'auto' } } as const;
  return (
    <Box role="row" data-session={s.id} sx={{ ...row, ...unseen }}>
      <Box role="cell" sx={{ fontFamily: fonts.numbers, fontSize: 13, ...wide }}>
        {dateTime(s.started)}
      </Box>
      <Box role="cell" sx={{ ...wide, overflowWrap: 'anywhere' }}>
        <Box component={SafeLink} href={`/bench/${s.id}`} sx={{ color: ink.ink, fontWeight: 700 }}>
          {s.patch}
        </Box>
        {s.simulated && <SimulatedMark />}
        {s.ended === null && s.deletedAt === null && (
          <Box component="span" sx={{ ml: 1, color: ink.wanted, fontSize: 13, fontWeight: 700 }}>
            open
          </Box>
        )}
      </Box>
      <Box role="cell" sx={wide}>
        {s.rack || 'No rack'}
      </Box>
      <Box role="cell" sx={wide}>
        {counted(s.readings, 'reading')}
        {s.wrong > 0 && <Box component="span" sx={{ color: ink.error, fontWeight: 700 }}>{`, ${s.wrong} wrong`}</Box>}
      </Box>
      <Box role="cell" sx={wide}>
        {s.files > 0 ? counted(s.files, 'file') : ''}
      </Box>
      <Box role="cell" sx={{ gridColumn: { xs: 2, md: 'auto' }, gridRow: { xs: '1 / span 4', md: 'auto' } }}>
        {s.deletedAt === null ? (
          <Button onClick={remove} aria-label={`Delete the session of ${dateTime(s.started)}`}>
            Delete
          </Button>
        ) : (
          <Button onClick={restore}>Restore</Button>
        )}
      </Box>
    </Box>
  );
}
