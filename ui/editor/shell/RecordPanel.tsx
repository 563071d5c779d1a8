'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import { printWalkthrough, recordedWalkthrough } from '@/core/practice';
import { counted } from '@/ui/parts/counted';
import { tellFault } from '@/ui/parts/messages';
import { walkthroughApi } from '@/ui/parts/walkthroughApi';
import type { DeskStore } from '@/ui/session/desk';
import { endRecording, walkRecording } from '@/ui/session/walkRecording';
import { ink } from '@/ui/theme/tokens';
import { floatingStyle } from './floating';

/** While a walkthrough is recorded: how many steps there are, the last of them, and the way to its text. */
export function RecordPanel({ desk }: { readonly desk: DeskStore }) {
  const { on, base, gestures, full } = useStore(walkRecording);
  const router = useRouter();
  useEffect(() => endRecording, [desk]);
  if (!on || !base) return null;
  const save = (): void =>
    void walkthroughApi
      .add(printWalkthrough(recordedWalkthrough(base.name, base, gestures)))
      .then(({ id }) => {
        endRecording();
        router.push(`/practice/walkthroughs?edit=${encodeURIComponent(id)}`);
      })
      .catch(tellFault);
  return (
    <Box component="section" aria-label="Recording a walkthrough" data-recording data-no-print sx={floatingStyle}>
      <Box sx={{ fontSize: 12, fontWeight: 700, color: ink.softInk }}>
        {`Recording a walkthrough: ${counted(gestures.length, 'step')}`}
      </Box>
      <Box role="status" sx={{ my: 0.5 }}>
        {full
          ? 'No more steps fit into one walkthrough. Save it, and add its text.'
          : (gestures.at(-1)?.label ??
            'Turn a knob, change a cable, choose a destination: each change becomes a step.')}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        <Button color="primary" disabled={gestures.length === 0} onClick={save}>
          Save and add text
        </Button>
        <Button onClick={endRecording}>Discard</Button>
      </Box>
    </Box>
  );
}
