'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { later } from '@/ui/parts/later';
import { SiteHead } from '@/ui/parts/SiteHead';
import { TabRow } from '@/ui/parts/TabRow';
import { AddReading } from './AddReading';
import { FaultPanel } from './FaultPanel';
import { Notes } from './Notes';
import { ReadingsTable } from './ReadingsTable';
import { SessionHeading } from './SessionHeading';
import { useSession } from './useSession';
import type { OpenSession } from './useSession';

const Trend = later(() => import('./Trend').then((m) => m.Trend));
const Photographs = later(() => import('./Photographs').then((m) => m.Photographs));
const Recordings = later(() => import('./Recordings').then((m) => m.Recordings));
const LiveInput = later(() => import('./LiveInput').then((m) => m.LiveInput));

const TABS = [
  ['fault', 'Fault'],
  ['trend', 'Trend'],
  ['recordings', 'Recordings'],
  ['live', 'Live input'],
  ['photographs', 'Photos'],
  ['notes', 'Notes'],
] as const;
type TabName = (typeof TABS)[number][0];

/** One standing at the rack: what was read, beside what was expected, and what it tells. */
export function SessionScreen({ id }: { readonly id: string }) {
  const { open, error } = useSession(id);
  return (
    <Box component="main" sx={{ maxWidth: 1480, mx: 'auto', pb: 6 }}>
      <SiteHead here="/bench" />
      <Box sx={{ px: 2 }}>
        {error && (
          <Alert severity="error" sx={{ mt: 2 }}>
            {error}
          </Alert>
        )}
        {!open && !error && <Skeleton variant="rounded" sx={{ height: 320, mt: 2 }} />}
        {open && <Standing open={open} />}
      </Box>
    </Box>
  );
}

function Standing({ open }: { readonly open: OpenSession }) {
  const find = useSearchParams().get('find');
  const [tab, setTab] = useState<TabName>('fault');
  const [chosen, setChosen] = useState<number | null>(null);
  return (
    <>
      <SessionHeading open={open} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 480px' },
          gridTemplateRows: { lg: 'auto 1fr' },
          // On a phone what is looked for stands above the long list.
          gridTemplateAreas: { xs: '"add" "panel" "readings"', lg: '"add panel" "readings panel"' },
          columnGap: 3,
          rowGap: 2,
          mt: 1.5,
        }}
      >
        <Box sx={{ gridArea: 'add', minWidth: 0 }}>
          <AddReading open={open} />
        </Box>
        <Box sx={{ gridArea: 'readings', minWidth: 0 }}>
          <ReadingsTable
            open={open}
            chosen={chosen}
            onChoose={(reading) => {
              setChosen(reading);
              setTab('trend');
            }}
          />
        </Box>
        <Box sx={{ gridArea: 'panel', minWidth: 0 }}>
          <TabRow
            label="Session"
            value={tab}
            tabs={open.session.simulated ? TABS.filter(([name]) => name !== 'live') : TABS}
            onChange={setTab}
          />
          {tab === 'fault' && <FaultPanel open={open} asked={find === 'fault'} />}
          {tab === 'trend' && <Trend open={open} chosen={chosen} />}
          {tab === 'recordings' && <Recordings open={open} />}
          {tab === 'live' && <LiveInput open={open} />}
          {tab === 'photographs' && <Photographs open={open} />}
          {tab === 'notes' && <Notes open={open} />}
        </Box>
      </Box>
    </>
  );
}
