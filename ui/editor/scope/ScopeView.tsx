'use client';
import { later } from '@/ui/parts/later';
import type { SpectrumAnswer } from '@/wire/core';
import { Plot } from './Plot';
import type { PlotProps } from './Plot';
import type { Way } from './ScopeBar';

// Loaded when they are first shown.
const Levels = later(() => import('./Levels').then((m) => m.Levels));
const XyPlot = later(() => import('./XyPlot').then((m) => m.XyPlot));
const SpectrumPlot = later(() => import('./SpectrumPlot').then((m) => m.SpectrumPlot));

interface Props extends PlotProps {
  readonly way: Way;
  readonly spectra: ReadonlyMap<string, SpectrumAnswer> | null;
}

/** The traces in the way that was chosen. */
export function ScopeView({ way, spectra, ...plot }: Props) {
  const { traces, sampleRate, view } = plot;
  if (way === 'levels') return <Levels traces={traces} sampleRate={sampleRate} />;
  if (way === 'xy') return <XyPlot traces={traces} sampleRate={sampleRate} view={view} />;
  if (way === 'spectrum') return <SpectrumPlot traces={traces} spectra={spectra} />;
  return <Plot {...plot} />;
}
