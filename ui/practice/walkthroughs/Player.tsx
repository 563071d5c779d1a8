'use client';
import Box from '@mui/material/Box';
import { useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { idOf } from '@/core';
import type { Walkthrough, WalkthroughStep } from '@/core/practice';
import type { Window } from '@/ui/editor/scope/view';
import { PathScope } from '@/ui/editor/scope/PathScope';
import { PlayButton } from '@/ui/editor/live/PlayButton';
import { Strip } from '@/ui/editor/strip/Strip';
import { later } from '@/ui/parts/later';
import { OpenInEditor } from '@/ui/parts/OpenInEditor';
import { SafeLink } from '@/ui/parts/SafeLink';
import { hearing } from '@/ui/session/hearing';
import { usePrediction } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import { Caption } from './Caption';
import { usePlayer } from './usePlayer';
import type { Player as PlayerModel } from './usePlayer';

const PlayBar = later(() => import('@/ui/editor/live/PlayBar').then((m) => m.PlayBar));

interface Props {
  readonly walkthrough: Walkthrough;
  readonly onEnd: () => void;
}

/** Arrows go from step to step, K runs it by itself or pauses, where no field and no knob has the focus. */
function useKeys({ state, send }: PlayerModel): void {
  const { runs, phase } = state;
  useEffect(() => {
    const press = (e: KeyboardEvent): void => {
      const inside = e.target instanceof HTMLElement && e.target.closest('input, textarea, [role=slider], [role=menu]');
      if (inside || e.defaultPrevented || e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === 'ArrowRight') send({ is: phase === 'asking' ? 'show' : 'next' });
      else if (e.key === 'ArrowLeft') send({ is: 'back' });
      else if (e.key === 'k' || e.key === 'K') send({ is: runs ? 'pause' : 'play' });
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [send, runs, phase]);
}

const NO_PINS: readonly string[] = [];
const modulesOf = ({ set, look }: WalkthroughStep): string[] => [
  ...new Set([...set.map((s) => idOf(s.at)), ...(set.length === 0 && look ? [idOf(look.at)] : [])]),
];

/** A walkthrough as it is played: the path and the scope, and beside them the step with its knobs. */
export function Player({ walkthrough, onEnd }: Props) {
  const player = usePlayer(walkthrough);
  const { desk, step, end } = player;
  useKeys(player);
  const patch = useStore(desk, (s) => s.patch);
  const hears = useStore(hearing, (s) => s.open);
  const [view, setView] = useState<Window | null>(null);
  const [spectra, setSpectra] = useState('');
  const pins = step.pins ?? NO_PINS;
  const looked = useMemo(() => ({ ...patch, probes: pins.map((at) => ({ at })) }), [patch, pins]);
  const predicted = usePrediction(looked, end, { spectra });
  const chosen = useMemo(() => modulesOf(step), [step]);
  return (
    <>
      <Box sx={titleStyle}>
        {/* One line of text, that wraps as one; on a phone the buttons have a row of their own. */}
        <Box sx={{ flex: { xs: '1 0 100%', sm: '1 1 0' }, minWidth: 0 }}>
          <Box component={SafeLink} href="/practice/walkthroughs" sx={{ color: ink.softInk }}>
            Walkthroughs
          </Box>
          {' / '}
          <Box component="h1" sx={{ display: 'inline', fontSize: 18, m: 0 }}>
            {walkthrough.title}
          </Box>
        </Box>
        <PlayButton />
        <OpenInEditor patch={() => ({ ...desk.getState().patch, variants: [] })} />
      </Box>
      {hears && <PlayBar desk={desk} predicted={predicted} end={end} />}
      <Box sx={bodyStyle}>
        <Box component="main" sx={pathStyle} data-simulated={predicted.full !== null}>
          <Box sx={{ display: 'flex', flex: { md: '1 0 300px' }, height: { xs: 340, md: 'auto' }, minWidth: 0 }}>
            {predicted.strip && <Strip predicted={predicted} strip={predicted.strip} chosen={chosen} />}
          </Box>
          <PathScope predicted={predicted} view={view} onView={setView} onSpectra={setSpectra} />
        </Box>
        <Box sx={asideStyle}>
          <Caption {...{ walkthrough, player, predicted, onEnd }} />
        </Box>
      </Box>
    </>
  );
}

const titleStyle = {
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  gap: 1,
  px: 2,
  py: 0.75,
  borderBottom: `1px solid ${ink.line}`,
} as const;
// On a phone the step comes first: what it says is read before what it shows.
const bodyStyle = {
  flex: 1,
  minHeight: 0,
  display: 'flex',
  flexDirection: { xs: 'column-reverse', md: 'row' },
} as const;
const pathStyle = { flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' } as const;
const asideStyle = {
  width: { md: 340 },
  flexShrink: 0,
  display: 'flex',
  flexDirection: 'column',
  overflowY: { md: 'auto' },
  borderLeft: { md: `1px solid ${ink.line}` },
  '& > section': { flex: 1 },
} as const;
