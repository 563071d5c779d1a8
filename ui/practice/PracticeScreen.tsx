'use client';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { later } from '@/ui/parts/later';
import { SiteHead } from '@/ui/parts/SiteHead';
import { TabRow } from '@/ui/parts/TabRow';
import { useAnswers } from './answers';
import { Progress } from './Progress';
import { Sitting } from './Sitting';
import type { SittingOf } from './Sitting';
import { Skills } from './Skills';

const WalkthroughList = later(() => import('./walkthroughs/WalkthroughList').then((m) => m.WalkthroughList));

const TABS = [
  ['practise', 'Practise'],
  ['walkthroughs', 'Walkthroughs'],
  ['progress', 'Progress'],
] as const;

type Tab = (typeof TABS)[number][0];

/** Exercises one at a time, walkthroughs, and how it went. */
export function PracticeScreen({ first = 'practise' }: { readonly first?: Tab }) {
  const answers = useAnswers();
  const [tab, setTab] = useState<Tab>(first);
  const [sitting, setSitting] = useState<SittingOf | null>(null);
  return (
    <Box component="main" sx={{ maxWidth: 1480, mx: 'auto', pb: 6 }}>
      <SiteHead here="/practice" />
      <Box sx={{ px: 2 }}>
        {sitting && answers.stored ? (
          <Sitting of={sitting} answers={answers} onEnd={() => setSitting(null)} />
        ) : (
          <>
            <TabRow label="Practice" value={tab} tabs={TABS} onChange={setTab} />
            {tab === 'practise' && <Skills stored={answers.stored} onBegin={setSitting} />}
            {tab === 'walkthroughs' && <WalkthroughList />}
            {tab === 'progress' && <Progress {...answers} onBegin={setSitting} />}
          </>
        )}
      </Box>
    </Box>
  );
}
