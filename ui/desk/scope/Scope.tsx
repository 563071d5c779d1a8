'use client';
import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { memo, useEffect, useRef, useState } from 'react';
import { headingStyle } from '@/ui/parts/fieldStyle';
import { tellFault } from '@/ui/parts/messages';
import { ink } from '@/ui/theme/tokens';
import type { FullAnswer } from '@/wire/core';
import { MeasuresTable } from './MeasuresTable';
import { Plot } from './Plot';
import type { Pin } from './pins';
import { Select } from './Select';
import { TriggerFields } from './TriggerFields';
import type { Trigger } from './TriggerFields';
import { DASHES, moved } from './view';
import type { ShownIn, Trace, Window } from './view';

const Levels = dynamic(() => import('./Levels').then((m) => m.Levels), { ssr: false });
const XyPlot = dynamic(() => import('./XyPlot').then((m) => m.XyPlot), { ssr: false });
const SpectrumPlot = dynamic(() => import('./SpectrumPlot').then((m) => m.SpectrumPlot), { ssr: false });

type Way = 'traces' | 'levels' | 'xy' | 'spectrum';
const WAYS: readonly (readonly [Way, string])[] = [
  ['traces', 'Traces'],
  ['levels', 'Levels'],
  ['xy', 'XY'],
  ['spectrum', 'Spectrum'],
];

interface Props {
  /** The patch's name, for the files. */
  readonly name: string;
  /** What is pinned, whether it has been simulated yet or not. */
  readonly pins: readonly Pin[];
  readonly traces: readonly Trace[];
  readonly full: FullAnswer | null;
  readonly duration: number;
  /** Asks for the spectrum of sockets, between spaces. */
  readonly onSpectra: (sockets: string) => void;
}

/** The pinned probes: over time, as levels, one over the other, or by frequency. */
export const Scope = memo(function Scope({ name, pins, traces, full, duration, onSpectra }: Props) {
  const [way, setWay] = useState<Way>('traces');
  const [shownIn, setShownIn] = useState<ShownIn>('volts');
  const [view, setView] = useState<Window>({ from: 0, to: duration });
  const [cursors, setCursors] = useState<readonly [number, number]>([0.125 * duration, 0.625 * duration]);
  const [trigger, setTrigger] = useState<Trigger | null>(null);
  const picture = useRef<HTMLDivElement>(null);
  const sampleRate = full?.sampleRate ?? 8000;
  const shown = view.to > duration ? { from: 0, to: duration } : view;
  const sockets = way === 'spectrum' ? traces.map((t) => t.socket).join(' ') : '';
  useEffect(() => onSpectra(sockets), [sockets, onSpectra]);
  const origin = trigger?.at ?? 0;
  return (
    <Box
      component="section"
      aria-label="Scope"
      sx={{
        display: 'flex',
        flexWrap: { xs: 'wrap', md: 'nowrap' },
        gap: 1,
        px: 1.75,
        pt: 0.75,
        borderTop: `1px solid ${ink.line}`,
        height: { md: '38%' },
        minHeight: 264,
        contain: { md: 'strict' },
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
        <Box
          sx={{
            display: 'flex',
            columnGap: 1,
            rowGap: 0.5,
            flexWrap: 'wrap',
            alignItems: 'center',
            fontSize: 13,
            minHeight: 28,
          }}
        >
          <Box component="h2" sx={headingStyle}>
            Scope
          </Box>
          <Select label="View" value={way} options={WAYS} onChange={setWay} />
          {way === 'traces' && (
            <>
              <Select
                label="Shown in"
                value={shownIn}
                options={[
                  ['volts', 'volts'],
                  ['figure', 'the end’s unit'],
                  ['dB', 'dB, 0 is 5 V'],
                ]}
                onChange={setShownIn}
              />
              <TriggerFields
                traces={traces}
                sampleRate={sampleRate}
                trigger={trigger}
                onTrigger={(next) => {
                  setTrigger(next);
                  if (next)
                    setView((old) =>
                      moved(
                        { from: next.at - 0.1 * (old.to - old.from), to: next.at + 0.9 * (old.to - old.from) },
                        0,
                        duration,
                      ),
                    );
                }}
              />
            </>
          )}
        </Box>
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Legend pins={pins} />
          {pins.length > 0 && <ExportMenu name={name} traces={traces} sampleRate={sampleRate} picture={picture} />}
        </Box>
        <Box ref={picture} sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
          {way === 'traces' ? (
            <Plot
              traces={traces}
              shownIn={shownIn}
              sampleRate={sampleRate}
              duration={duration}
              origin={origin}
              view={shown}
              setView={setView}
              cursors={cursors}
              setCursors={setCursors}
            />
          ) : way === 'levels' ? (
            <Levels traces={traces} />
          ) : way === 'xy' ? (
            <XyPlot traces={traces} sampleRate={sampleRate} view={shown} />
          ) : (
            <SpectrumPlot traces={traces} spectra={full?.spectra ?? new Map()} />
          )}
        </Box>
      </Box>
      {pins.length > 0 && way === 'traces' && (
        // Its width is known before its figures, so that nothing moves when they come.
        <Box sx={{ width: { md: 104 + 78 * pins.length }, maxWidth: { xs: '100%', md: '46%' }, flexShrink: 0 }}>
          {traces.length > 0 && <MeasuresTable traces={traces} sampleRate={sampleRate} cursors={cursors} />}
        </Box>
      )}
    </Box>
  );
});

function Legend({ pins }: { pins: readonly Pin[] }) {
  return (
    <Box
      sx={{
        flex: 1,
        display: 'flex',
        columnGap: 2,
        flexWrap: 'wrap',
        alignItems: 'center',
        fontSize: 13,
        minHeight: 24,
      }}
    >
      {pins.map((t, i) => (
        <Box key={t.socket} component="span" sx={{ display: 'inline-flex', gap: 0.75, alignItems: 'center' }}>
          {t.label}
          <svg width="28" height="6" aria-hidden="true">
            <line x1="0" x2="28" y1="3" y2="3" stroke={ink.trace} strokeWidth="2" strokeDasharray={DASHES[i]} />
          </svg>
        </Box>
      ))}
      {pins.length === 0 && <span>Pin a socket of a stage to see its trace here.</span>}
    </Box>
  );
}

interface ExportProps {
  readonly name: string;
  readonly traces: readonly Trace[];
  readonly sampleRate: number;
  readonly picture: React.RefObject<HTMLDivElement | null>;
}

function ExportMenu({ name, traces, sampleRate, picture }: ExportProps) {
  const save = async (as: string): Promise<void> => {
    const files = await import('./exports');
    const svg = picture.current?.querySelector('svg');
    if (as === 'csv') files.saveCsv(name, traces, sampleRate);
    else if (as === 'wav') await files.saveWav(name, traces, sampleRate);
    else if (svg && as === 'svg') files.saveSvg(name, svg);
    else if (svg) await files.savePng(name, svg);
  };
  return (
    <Select
      label="Save"
      value=""
      options={[
        ['', 'Save as…'],
        ['csv', 'CSV, volts'],
        ['wav', 'WAV, 1.0 is 10 V'],
        ['svg', 'picture, SVG'],
        ['png', 'picture, PNG'],
      ]}
      onChange={(as) => as && void save(as).catch(tellFault)}
    />
  );
}
