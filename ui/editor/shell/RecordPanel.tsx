'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo } from 'react';
import { useStore } from 'zustand';
import { applyEdits } from '@/core';
import { isFull, printWalkthrough, recordedWalkthrough } from '@/core/practice';
import type { Gesture } from '@/core/practice';
import { counted } from '@/ui/parts/counted';
import { tellFault } from '@/ui/parts/messages';
import { walkthroughApi } from '@/ui/parts/walkthroughApi';
import type { DeskStore } from '@/ui/session/desk';
import type { Change } from '@/ui/session/history';
import { endRecording } from '@/ui/session/walkRecording';
import type { WalkRecording } from '@/ui/session/walkRecording';
import { ink } from '@/ui/theme/tokens';
import { floatingStyle } from './floating';

interface Props {
  readonly desk: DeskStore;
  readonly recording: WalkRecording;
}

/** What the editor’s history did since a recording began; what was undone is none, what no longer fits is left out. */
function gesturesOf(past: readonly Change[], { base, already, places }: WalkRecording): readonly Gesture[] {
  let patch = base;
  const gestures: Gesture[] = [];
  for (const [i, { label, edits }] of past.slice(already).entries()) {
    if (isFull(gestures)) break;
    patch = applyEdits(patch, edits);
    gestures.push({ label, at: places[i] ?? null, patch });
  }
  return gestures;
}

/** While a walkthrough is recorded: how many steps there are, the last of them, and the way to its text. */
export function RecordPanel({ desk, recording }: Props) {
  const past = useStore(desk, (s) => s.history.past);
  const router = useRouter();
  useEffect(() => endRecording, [desk]);
  const { base } = recording;
  const gestures = useMemo(() => gesturesOf(past, recording), [past, recording]);
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
        {isFull(gestures)
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
