'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useStore } from 'zustand';
import { tour } from '@/core/practice/walkthroughs/tour';
import type { WalkthroughStep } from '@/core/practice';
import { SafeLink } from '@/ui/parts/SafeLink';
import { setSetting } from '@/ui/parts/settings';
import type { DeskStore } from '@/ui/session/desk';
import { hearing } from '@/ui/session/hearing';
import { inspector, openIssues, openTab } from '@/ui/session/inspector';
import type { Predicted } from '@/ui/session/usePrediction';
import { readWalkthrough } from '@/ui/parts/walkthroughApi';
import { ink } from '@/ui/theme/tokens';
import { verdictOf } from '../verdict/verdict';
import { floatingStyle } from './floating';

interface Seen {
  readonly predicted: Predicted;
  readonly shown: string | null;
  readonly issues: boolean;
  readonly played: boolean;
}

const met = ({ predicted, shown }: Seen): boolean =>
  predicted.missed.some((m) => m.target.at === shown) &&
  predicted.missed.filter((m) => m.target.at === shown).every((m) => m.met);

type Task = NonNullable<WalkthroughStep['task']>;

/** What a step of the tour asks for, in this editor. */
interface TaskHere {
  readonly title: string;
  /** Done, the tour goes on by itself. */
  done?(seen: Seen): boolean;
  readonly button?: { readonly label: string; readonly run: () => void };
}

const TASKS: Readonly<Record<Task, TaskHere>> = {
  target: { title: 'Target', button: { label: 'Show the target', run: () => openTab('destination') } },
  solve: { title: 'Solve', done: met },
  issues: { title: 'Issues', done: (s) => s.issues, button: { label: 'Show the issues', run: () => openIssues() } },
  sheet: { title: 'Patch sheet' },
  listen: { title: 'Listen', done: (s) => s.played },
};
const FIRST: TaskHere = { title: 'What arrives' };
const STEPS = readWalkthrough(tour.document).steps;

/** Where it speaks of what arrives: of this very patch. */
function arrival(text: string, { predicted, shown }: Seen): string {
  const said = shown === null ? null : verdictOf(predicted, shown);
  return said
    ? `${text} Here it is ${said.reading}.`
    : 'Add a destination first: what do you want to control? A filter’s cutoff, say.';
}

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly shown: string | null;
}

/** The tour, a walkthrough in the editor itself: it goes on as its steps are done, or with Next, and can be left. */
export function Guide({ desk, predicted, shown }: Props) {
  const issues = useStore(inspector, (s) => s.issues);
  const played = useStore(hearing, (s) => s.playing);
  const [at, setAt] = useState(0);
  const seen: Seen = { predicted, shown, issues, played };
  const step = STEPS[at];
  const last = at === STEPS.length - 1;
  if (!step) return null;
  const task = step.task ? TASKS[step.task] : FIRST;
  const finish = (): void => setSetting('guide', 'off');
  const done = task.done?.(seen) ?? false;
  return (
    <Box component="section" aria-label="Tour" data-tour={at + 1} data-no-print sx={floatingStyle}>
      <Box sx={{ fontSize: 12, fontWeight: 700, color: ink.softInk }}>
        {`Tour, ${at + 1} of ${STEPS.length}: ${task.title}`}
      </Box>
      <Box role="status" sx={{ my: 0.5 }}>
        {done ? `${task.title}: done.` : task === FIRST ? arrival(step.text, seen) : step.text}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {step.task === 'sheet' && (
          <Box component={SafeLink} href={`/patches/${desk.getState().id}/sheet`} sx={{ color: ink.wanted, py: 0.5 }}>
            Open the patch sheet
          </Box>
        )}
        {task.button && !done && <Button onClick={task.button.run}>{task.button.label}</Button>}
        <Button color="primary" onClick={() => (last ? finish() : setAt(at + 1))}>
          {last ? 'Finish' : 'Next'}
        </Button>
        {at > 0 && <Button onClick={() => setAt(at - 1)}>Back</Button>}
        {!last && <Button onClick={finish}>Skip the tour</Button>}
      </Box>
    </Box>
  );
}
