'use client';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { later } from '@/ui/parts/later';
import { SiteHead } from '@/ui/parts/SiteHead';
import { TabRow } from '@/ui/parts/TabRow';
import { Sessions } from './Sessions';

const SetLists = later(() => import('./SetLists').then((m) => m.SetLists));
const Calibration = later(() => import('./Calibration').then((m) => m.Calibration));

const TABS = [
  ['sessions', 'Sessions'],
  ['calibration', 'Calibration'],
  ['sets', 'Set lists'],
] as const;
type TabName = (typeof TABS)[number][0];

/** What happened at the rack: sessions with their readings, and what they tell of its modules. */
export function BenchScreen() {
  const [tab, setTab] = useState<TabName>('sessions');
  return (
    <Box component="main" sx={{ maxWidth: 1480, mx: 'auto', pb: 6 }}>
      <SiteHead here="/bench" />
      <Box sx={{ px: 2 }}>
        <TabRow label="Bench" value={tab} tabs={TABS} onChange={setTab} />
        {tab === 'sessions' && <Sessions />}
        {tab === 'calibration' && <Calibration />}
        {tab === 'sets' && <SetLists />}
      </Box>
    </Box>
  );
}
