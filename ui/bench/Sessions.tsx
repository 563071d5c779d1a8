'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { FileButton } from '@/ui/parts/FileButton';
import { later } from '@/ui/parts/later';
import { tell, tellFault } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import type { SessionHead } from '@/wire/bench';
import { benchApi } from './benchApi';
import { SessionTable } from './SessionTable';

const NewSession = later(() => import('./NewSession').then((m) => m.NewSession));

/** Each name once, in the order of the sessions. */
const namesOf = (sessions: readonly SessionHead[], of: (s: SessionHead) => string): (readonly [string, string])[] =>
  [...new Set(sessions.map(of))].filter((name) => name !== '').map((name) => [name, name] as const);

/** All standings at a rack, the latest first. */
export function Sessions() {
  const queries = useQueryClient();
  const [deleted, setDeleted] = useState(false);
  const { data, error } = useQuery({
    queryKey: ['sessions', deleted],
    queryFn: () => benchApi.list(deleted),
    staleTime: 0,
  });
  const [patch, setPatch] = useState('');
  const [rack, setRack] = useState('');
  const [begins, setBegins] = useState(false);
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ['sessions'] });
  const shown = (data ?? []).filter((s) => (patch === '' || s.patch === patch) && (rack === '' || s.rack === rack));
  const bringIn = (file: File): Promise<void> =>
    benchApi
      .importLog(file)
      .then(async ({ added, there }) => {
        await refresh();
        tell(`${added} sessions imported${there > 0 ? `; ${there} were here already` : ''}.`);
      })
      .catch(tellFault);
  return (
    <>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1, py: 1.5 }}>
        <Button color="primary" onClick={() => setBegins(true)}>
          New session
        </Button>
        <SelectField
          label="Patch"
          value={patch}
          options={[['', 'All patches'] as const, ...namesOf(data ?? [], (s) => s.patch)]}
          onChange={setPatch}
          sx={{ width: { xs: '100%', sm: 190 } }}
        />
        <SelectField
          label="Rack"
          value={rack}
          options={[['', 'All racks'] as const, ...namesOf(data ?? [], (s) => s.rack)]}
          onChange={setRack}
          sx={{ width: { xs: '100%', sm: 150 } }}
        />
        <Box sx={{ flex: 1 }} />
        <FileButton accept=".zip,.json" says="A bench log" onFile={bringIn} />
        <Exports sessions={shown} all={shown.length === (data ?? []).length} />
        <Button aria-pressed={deleted} onClick={() => setDeleted(!deleted)}>
          {deleted ? 'Back to sessions' : 'Deleted'}
        </Button>
      </Box>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <Skeleton variant="rounded" sx={{ height: 180 }} />}
      {data && shown.length === 0 && <NoSessions deleted={deleted} some={data.length > 0} />}
      {shown.length > 0 && <SessionTable sessions={shown} onChanged={() => void refresh()} />}
      {begins && <NewSession onClose={() => setBegins(false)} />}
    </>
  );
}

function Exports({ sessions, all }: { readonly sessions: readonly SessionHead[]; readonly all: boolean }) {
  if (sessions.length === 0) return null;
  const ids = all ? undefined : sessions.map((s) => s.id);
  return (
    <>
      <Button component="a" href={benchApi.logAt('zip', ids)} download="bench-log.zip">
        Export log
      </Button>
      <Button component="a" href={benchApi.logAt('csv', ids)} download="bench-log.csv">
        Export CSV
      </Button>
    </>
  );
}

function NoSessions({ deleted, some }: { readonly deleted: boolean; readonly some: boolean }) {
  if (deleted) return <p>No deleted sessions.</p>;
  if (some) return <p>No session matches.</p>;
  return (
    <Box sx={{ py: 4, maxWidth: 560 }}>
      <h2>No sessions yet</h2>
      <p>
        A session keeps your readings from the rack. It starts when you tick a step or enter a reading in a patch sheet.
        To try it without hardware, start a session on a simulated rack.
      </p>
    </Box>
  );
}
