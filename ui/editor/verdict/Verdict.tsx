'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { memo, useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { applyEdits, editsOf, idOf, knobPlace, showNumber } from '@/core';
import type { Edit, KnobSetting } from '@/core';
import { later } from '@/ui/parts/later';
import { useUnits } from '@/ui/parts/readingText';
import type { DeskStore } from '@/ui/session/desk';
import { openTab } from '@/ui/session/inspector';
import { useSolving } from '@/ui/session/solving';
import type { Predicted } from '@/ui/session/usePrediction';
import { fonts, ink } from '@/ui/theme/tokens';
import { focusOn } from '../commands/given';
import { PreviewButton } from '../preview/ApplyOrPreview';
import { usePreview } from '../preview/usePreview';
import { knobShort, solutionLabel, verdictOf } from './verdict';
import type { Tone, Verdict as Said } from './verdict';

// With it come the rules of all issues, which the page needs for nothing else.
const Why = later(() => import('./Why').then((m) => m.Why));

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  /** The destination shown. */
  readonly shown: string;
}

const COLOURS: Readonly<Record<Tone, string>> = {
  good: ink.good,
  error: ink.error,
  warning: ink.warning,
  plain: ink.softInk,
};

const lineStyle = {
  order: { xs: 0, md: 0 },
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  alignContent: 'center',
  columnGap: 2,
  rowGap: 0.5,
  flexShrink: 0,
  // Room for the buttons below the words where both don’t fit in one row: the path stays where it is as they come.
  minHeight: { xs: 66, md: 92, xl: 66 },
  px: { xs: 1.5, md: 2 },
  py: 0.75,
  borderBottom: `1px solid ${ink.line}`,
} as const;

/** Over the path: what arrives at the destination, whether that is right, and the one thing to do about it. */
export function Verdict({ desk, predicted, shown }: Props) {
  const units = useUnits();
  const said = verdictOf(predicted, shown, units);
  const pending = predicted.full === null && said.next?.do === 'target';
  return (
    <Box component="section" aria-label="Verdict" data-verdict={said.tone} sx={lineStyle}>
      <Reading place={said.place} reading={said.reading} />
      <Standing about={pending ? '' : said.about} says={said.says} tone={said.tone} pending={pending} />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, ml: 'auto' }}>
        <Next desk={desk} predicted={predicted} shown={shown} said={said} />
      </Box>
    </Box>
  );
}

const Reading = memo(function Reading({ place, reading }: Pick<Said, 'place' | 'reading'>) {
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box component="h2" sx={{ fontSize: 12, fontWeight: 400, color: ink.softInk, m: 0 }}>
        {place}
      </Box>
      <Box data-verdict-reading sx={{ fontFamily: fonts.numbers, fontSize: { xs: 19, md: 22 }, lineHeight: 1.25 }}>
        {reading}
      </Box>
    </Box>
  );
});

interface StandingProps extends Pick<Said, 'about' | 'says' | 'tone'> {
  readonly pending: boolean;
}

const Standing = memo(function Standing({ about, says, tone, pending }: StandingProps) {
  return (
    <Box
      role="status"
      sx={{ flex: '1 1 150px', minWidth: 0, borderLeft: { md: `1px solid ${ink.line}` }, pl: { md: 1.75 } }}
    >
      {pending ? (
        <Skeleton variant="text" width={120} sx={{ fontSize: 13 }} aria-label="Checking the patch" />
      ) : (
        <Box sx={{ fontSize: 13, color: ink.softInk }}>{about}</Box>
      )}
      {says && <Box sx={{ fontWeight: 700, color: COLOURS[tone] }}>{says}</Box>}
    </Box>
  );
});

interface NextProps extends Props {
  readonly said: Said;
}

function Next({ desk, predicted, shown, said: { next } }: NextProps) {
  if (!next) return null;
  switch (next.do) {
    case 'apply':
      return (
        <>
          <Why code={next.finding.code} />
          <Apply desk={desk} edits={next.finding.cure?.edits ?? []} label={next.finding.cure?.label ?? ''} />
        </>
      );
    case 'explain':
      return <Why code={next.finding.code} />;
    case 'solve':
      return <Solve desk={desk} predicted={predicted} shown={shown} />;
    case 'target':
      return (
        <Button
          onClick={() => {
            openTab('destination');
            focusOn('#inspector-panel [role=combobox]');
          }}
        >
          Set a target
        </Button>
      );
  }
}

interface ApplyProps {
  readonly desk: DeskStore;
  readonly edits: readonly Edit[];
  readonly label: string;
  readonly knobs?: ReadonlyMap<string, number>;
  /** For the button, where what it does to which stage goes without saying. */
  readonly short?: string;
}

function Apply({ desk, edits, label, knobs, short }: ApplyProps) {
  const preview = usePreview(() => ({
    patch: applyEdits(desk.getState().patch, edits),
    ...(knobs && { knobs }),
  }));
  const apply = (): void => {
    preview.end();
    desk.getState().edit(label, edits);
  };
  return (
    <Box {...preview.area} sx={{ display: 'contents' }}>
      <PreviewButton preview={preview} />
      <Button color="primary" variant="contained" title={label} onClick={apply} sx={{ maxWidth: 240 }}>
        <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {short ?? label}
        </Box>
      </Button>
    </Box>
  );
}

/** Nothing has moved for this long before knobs are looked for, milliseconds. */
const QUIET = 500;

/** The knobs that would meet the targets, looked for as soon as the hand rests; else the way to look for them. */
function Solve({ desk, predicted, shown }: Props) {
  const solving = useSolving();
  const { patch } = predicted.graph;
  const hint = useStore(solving, (s) => (s.hint?.patch === patch ? s.hint.answer : null));
  const [asked, setAsked] = useState(false);
  const settled = predicted.full !== null;
  useEffect(() => {
    if (!settled) return undefined;
    const timer = setTimeout(() => solving.getState().suggest(), QUIET);
    return () => clearTimeout(timer);
  }, [solving, patch, settled]);
  const best = hint?.solutions[0];
  if (best && best.settings.length + best.jumpers.length > 0) {
    const show = ({ value }: KnobSetting): string => showNumber(value, 2);
    const label = solutionLabel(best, (at) => knobPlace(patch.modules, at), show);
    const own = idOf(shown);
    const short = solutionLabel(best, (at) => knobShort(predicted, at, own), show);
    const knobs = new Map(best.settings.map((s) => [s.at, s.value]));
    return <Apply desk={desk} edits={editsOf(best)} label={label} short={short} knobs={knobs} />;
  }
  const solve = (): void => {
    setAsked(true);
    openTab('destination');
    solving.getState().solve(false);
  };
  return (
    <Button color="primary" disabled={asked && hint === null && !settled} onClick={solve}>
      {hint && !hint.feasible && !hint.partial ? 'See why' : 'Solve'}
    </Button>
  );
}
