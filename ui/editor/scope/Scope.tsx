'use client';
import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import { memo, useEffect, useRef, useState } from 'react';
import { ink } from '@/ui/theme/tokens';
import type { FullAnswer } from '@/wire/core';
import { later } from '@/ui/parts/later';
import { Legend } from './Legend';
import { MeasuresTable } from './MeasuresTable';
import type { Pin } from './pins';
import { SaveMenu } from './SaveMenu';
import { ScopeBar } from './ScopeBar';
import type { Way } from './ScopeBar';
import { ScopeView } from './ScopeView';
import type { Trigger } from './TriggerFields';
import { moved } from './view';
import type { ShownIn, Trace, Window } from './view';

const Running = later(() => import('./Running').then((m) => m.Running));

interface Props {
  /** The patch's name, for the files. */
  readonly name: string;
  /** What is shown, whether it has been simulated yet or not. */
  readonly pins: readonly Pin[];
  readonly standIn: boolean;
  readonly traces: readonly Trace[];
  readonly full: FullAnswer | null;
  /** How far a run is that takes long; null while none does. */
  readonly progress: number | null;
  readonly onCancel: () => void;
  readonly duration: number;
  /** Asks for the spectrum of sockets, between spaces. */
  readonly onSpectra: (sockets: string) => void;
  readonly view: Window | null;
  readonly onView: (view: Window | null) => void;
}

const boxStyle = {
  order: { xs: 3, md: 0 },
  display: 'flex',
  flexDirection: 'column',
  px: 1.75,
  pt: 0.75,
  borderTop: `1px solid ${ink.line}`,
  height: { md: '40%' },
  minHeight: { md: 284 },
  contain: { md: 'strict' },
} as const;

const innerStyle = {
  flex: 1,
  minHeight: 0,
  display: 'flex',
  flexDirection: { xs: 'column', md: 'row' },
  gap: 1,
} as const;

/** Where the traces will stand, before the first simulation has ended. */
function Coming() {
  return (
    <Box role="status" sx={{ position: 'relative', flex: 1, minHeight: 0, pb: 1 }}>
      <Skeleton variant="rectangular" sx={{ height: '100%' }} />
      <Box sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center', color: ink.softInk }}>
        Simulating…
      </Box>
    </Box>
  );
}

/** The pinned probes: over time, as levels, one over the other, or by frequency. */
export const Scope = memo(function Scope(props: Props) {
  const { name, pins, standIn, traces, full, progress, onCancel, duration, onSpectra, view, onView } = props;
  const [way, setWay] = useState<Way>('traces');
  const [shownIn, setShownIn] = useState<ShownIn>('volts');
  const [cursors, setCursors] = useState<readonly [number, number]>([0.125 * duration, 0.625 * duration]);
  const [trigger, setTrigger] = useState<Trigger | null>(null);
  const picture = useRef<HTMLDivElement>(null);
  const sampleRate = full?.sampleRate ?? 8000;
  const whole = { from: 0, to: duration };
  const shown = view && view.to <= duration ? view : whole;
  const sockets = way === 'spectrum' ? traces.map((t) => t.socket).join(' ') : '';
  useEffect(() => onSpectra(sockets), [sockets, onSpectra]);
  const setView = (change: (old: Window) => Window): void => {
    const next = change(shown);
    onView(next.from === 0 && next.to === duration ? null : next);
  };
  const onTrigger = (next: Trigger | null): void => {
    setTrigger(next);
    const span = shown.to - shown.from;
    if (next) onView(moved({ from: next.at - 0.1 * span, to: next.at + 0.9 * span }, 0, duration));
  };
  return (
    <Box component="section" aria-label="Scope" sx={boxStyle}>
      <ScopeBar {...{ way, shownIn, traces, sampleRate, trigger, onTrigger }} onWay={setWay} onShownIn={setShownIn}>
        {pins.length > 0 && <SaveMenu name={name} traces={traces} sampleRate={sampleRate} picture={picture} />}
      </ScopeBar>
      <Legend pins={pins} standIn={standIn} />
      {progress !== null && <Running progress={progress} onCancel={onCancel} />}
      <Box sx={innerStyle}>
        <Box ref={picture} sx={{ flex: 1, minWidth: 0, minHeight: { xs: 220, md: 0 }, display: 'flex' }}>
          {pins.length > 0 && traces.length === 0 ? (
            <Coming />
          ) : (
            <ScopeView
              {...{ way, traces, shownIn, sampleRate, duration, cursors, setCursors, setView }}
              origin={trigger?.at ?? 0}
              view={shown}
              spectra={full?.spectra ?? null}
            />
          )}
        </Box>
        {pins.length > 0 && way === 'traces' && (
          // Its width is known before its figures, so that nothing moves when they come.
          <Box sx={{ width: { md: 96 + 88 * pins.length }, maxWidth: { xs: '100%', md: '52%' }, flexShrink: 0 }}>
            {traces.length > 0 && <MeasuresTable traces={traces} sampleRate={sampleRate} cursors={cursors} />}
          </Box>
        )}
      </Box>
    </Box>
  );
});
