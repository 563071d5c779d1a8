'use client';
import dynamic from 'next/dynamic';
import { patiently } from '@/ui/parts/patiently';
import type { SpectrumAnswer } from '@/wire/core';
import { Plot } from './Plot';
import type { PlotProps } from './Plot';
import type { Way } from './ScopeBar';

// Loaded when they are first shown.
const Levels = dynamic(
  patiently(() => import('./Levels').then((m) => m.Levels)),
  { ssr: false },
);
const XyPlot = dynamic(
  patiently(() => import('./XyPlot').then((m) => m.XyPlot)),
  { ssr: false },
);
const SpectrumPlot = dynamic(
  patiently(() => import('./SpectrumPlot').then((m) => m.SpectrumPlot)),
  { ssr: false },
);

interface Props extends PlotProps {
  readonly way: Way;
  readonly spectra: ReadonlyMap<string, SpectrumAnswer> | null;
}

/** The traces in the way that was chosen. */
export function ScopeView({ way, spectra, ...plot }: Props) {
  const { traces, sampleRate, view } = plot;
  if (way === 'levels') return <Levels traces={traces} />;
  if (way === 'xy') return <XyPlot traces={traces} sampleRate={sampleRate} view={view} />;
  if (way === 'spectrum') return <SpectrumPlot traces={traces} spectra={spectra} />;
  return <Plot {...plot} />;
}
