'use client';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { SiteHead } from '@/ui/parts/SiteHead';
import { TabRow } from '@/ui/parts/TabRow';
import { useAnswers } from './answers';
import { Progress } from './Progress';
import { Sitting } from './Sitting';
import type { SittingOf } from './Sitting';
import { Skills } from './Skills';

const TABS = [
  ['practise', 'Practise'],
  ['progress', 'Progress'],
] as const;

/** Exercises, one at a time, and how they went. */
export function PracticeScreen() {
  const answers = useAnswers();
  const [tab, setTab] = useState<'practise' | 'progress'>('practise');
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
            {tab === 'progress' && <Progress {...answers} />}
          </>
        )}
      </Box>
    </Box>
  );
}
