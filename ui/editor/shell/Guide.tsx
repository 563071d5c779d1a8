'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useStore } from 'zustand';
import { SafeLink } from '@/ui/parts/SafeLink';
import { setSetting, settings } from '@/ui/parts/settings';
import type { DeskStore } from '@/ui/session/desk';
import { hearing } from '@/ui/session/hearing';
import { inspector, openIssues, openTab } from '@/ui/session/inspector';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import { verdictOf } from '../verdict/verdict';

interface Seen {
  readonly predicted: Predicted;
  readonly shown: string | null;
  readonly issues: boolean;
  readonly played: boolean;
}

interface TourStep {
  readonly title: string;
  says(seen: Seen): string;
  /** Done, the tour goes on by itself; left out: with Next. */
  done?(seen: Seen): boolean;
  readonly button?: { readonly label: string; readonly run: () => void };
}

const met = ({ predicted, shown }: Seen): boolean =>
  predicted.missed.some((m) => m.target.at === shown) &&
  predicted.missed.filter((m) => m.target.at === shown).every((m) => m.met);

/** The path that people take: target, solve, issues, sheet, hear. */
const STEPS: readonly TourStep[] = [
  {
    title: 'What arrives',
    says: ({ predicted, shown }) => {
      const said = shown === null ? null : verdictOf(predicted, shown);
      return said
        ? `Each box is a stage on one voltage scale, from the source to ${said.place}. The line above says what arrives there: ${said.reading}.`
        : 'Add a destination first: what do you want to control? A filter’s cutoff, say.';
    },
  },
  {
    title: 'Target',
    says: () =>
      'A target says what you want there, in the destination’s own unit. You find it in the Destination tab. Type another maximum, for example 6 kHz, or keep it.',
    button: { label: 'Show the target', run: () => openTab('destination') },
  },
  {
    title: 'Solve',
    says: () =>
      'Fenvo finds the knobs for it. Press the filled button above the path, or Solve for knob settings and Apply one of the solutions.',
    done: met,
  },
  {
    title: 'Issues',
    says: () => 'What clips, stays closed or never arrives is listed under Issues, each with a suggested fix.',
    done: (s) => s.issues,
    button: { label: 'Show the issues', run: () => openIssues() },
  },
  {
    title: 'Patch sheet',
    says: () =>
      'The patch sheet takes it to the rack: each cable, each knob as a clock position, and what a meter must read. Open it when you are done here.',
  },
  {
    title: 'Listen',
    says: () => 'Turn your speakers or headphones down first. Then press Play, at the top, and hear the patch.',
    done: (s) => s.played,
  },
];

const boxStyle = {
  position: 'fixed',
  left: { xs: 8, md: 252 },
  bottom: 12,
  width: { xs: 'calc(100% - 16px)', md: 420 },
  p: 1.75,
  background: ink.raised,
  border: `1px solid ${ink.wanted}`,
  borderRadius: 1,
  zIndex: 5,
} as const;

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly shown: string | null;
}

/** The tour: it goes on as its steps are done, or with Next, and can be left at any time. */
export function Guide({ desk, predicted, shown }: Props) {
  const guide = useStore(settings, (s) => s.guide);
  const issues = useStore(inspector, (s) => s.issues);
  const played = useStore(hearing, (s) => s.playing);
  const [at, setAt] = useState(0);
  if (guide !== 'on') return null;
  const seen: Seen = { predicted, shown, issues, played };
  const step = STEPS[at];
  const last = at === STEPS.length - 1;
  if (!step) return null;
  const finish = (): void => setSetting('guide', 'off');
  const done = step.done?.(seen) ?? false;
  return (
    <Box component="section" aria-label="Tour" data-tour={at + 1} data-no-print sx={boxStyle}>
      <Box sx={{ fontSize: 12, fontWeight: 700, color: ink.softInk }}>
        {`Tour, ${at + 1} of ${STEPS.length}: ${step.title}`}
      </Box>
      <Box role="status" sx={{ my: 0.5 }}>
        {done ? `${step.title}: done.` : step.says(seen)}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {step.title === 'Patch sheet' && (
          <Box component={SafeLink} href={`/patches/${desk.getState().id}/sheet`} sx={{ color: ink.wanted, py: 0.5 }}>
            Open the patch sheet
          </Box>
        )}
        {step.button && !done && <Button onClick={step.button.run}>{step.button.label}</Button>}
        <Button color="primary" onClick={() => (last ? finish() : setAt(at + 1))}>
          {last ? 'Finish' : 'Next'}
        </Button>
        {at > 0 && <Button onClick={() => setAt(at - 1)}>Back</Button>}
        {!last && <Button onClick={finish}>Skip the tour</Button>}
      </Box>
    </Box>
  );
}
