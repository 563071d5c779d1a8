'use client';
import Box from '@mui/material/Box';
import { useMemo, useState } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { showHz, showNumber } from '@/core';
import { SelectField } from '@/ui/parts/SelectField';
import { fonts, ink } from '@/ui/theme/tokens';
import type { SpectrumAnswer } from '@/wire/core';
import { PeaksTable } from './PeaksTable';
import { FLOOR_DB, pointsOf, hertzOf } from './spectrum';
import type { Trace } from './view';

interface Props {
  readonly traces: readonly Trace[];
  readonly spectra: ReadonlyMap<string, SpectrumAnswer> | null;
}

/** A probe's amplitudes by frequency, its peaks by name, and where a product's lines must lie. */
export function SpectrumPlot({ traces, spectra }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  const sounding = traces.find((t) => (spectra?.get(t.socket)?.peaks.length ?? 0) > 0);
  const trace = traces.find((t) => t.socket === chosen) ?? sounding ?? traces[0];
  const spectrum = trace && spectra?.get(trace.socket);
  if (!trace) return null;
  return (
    <Box sx={{ flex: 1, minHeight: 190, display: 'flex', gap: 2, flexWrap: { xs: 'wrap', md: 'nowrap' } }}>
      <Box
        role="img"
        aria-label={`Spectrum of ${trace.label}, dB below its highest peak`}
        data-spectrum={spectrum ? 'ready' : 'waiting'}
        sx={{ flex: 1, minWidth: 260, minHeight: 190 }}
      >
        {spectrum && <SpectrumChart spectrum={spectrum} />}
      </Box>
      <Box sx={{ width: 270, overflow: 'auto', fontSize: 13 }}>
        <SelectField
          label="Trace"
          value={trace.socket}
          options={traces.map((t) => [t.socket, t.label] as const)}
          onChange={setChosen}
          sx={{ maxWidth: '100%' }}
        />
        {spectrum ? <PeaksTable spectrum={spectrum} /> : <Box role="status">Calculating…</Box>}
      </Box>
    </Box>
  );
}

const figures = { fontFamily: fonts.numbers, fontSize: 12, fill: ink.ink } as const;

function SpectrumChart({ spectrum }: { spectrum: SpectrumAnswer }) {
  const points = useMemo(() => pointsOf(spectrum), [spectrum]);
  const [lowest, highest] = hertzOf(spectrum);
  return (
    <ResponsiveContainer>
      <LineChart data={points} margin={{ left: 0, right: 16, top: 8, bottom: 0 }}>
        <CartesianGrid stroke={ink.line} />
        <XAxis
          type="number"
          scale="log"
          dataKey="hz"
          domain={[lowest, highest]}
          ticks={[10, 100, 1000, 10_000].filter((hz) => hz >= lowest && hz <= highest)}
          tick={figures}
          tickFormatter={(hz: number) => showHz(hz)}
        />
        <YAxis domain={[FLOOR_DB, 6]} ticks={[-80, -60, -40, -20, 0]} width={44} tick={figures} tickFormatter={db} />
        {spectrum.products.map((p) => (
          <ReferenceLine key={p.is} x={Math.max(lowest, p.predictedHz)} stroke={ink.wanted} strokeDasharray="4 3" />
        ))}
        <Line dataKey="db" stroke={ink.trace} strokeWidth={1.2} dot={false} isAnimationActive={false} />
      </LineChart>
    </ResponsiveContainer>
  );
}

const db = (v: number): string => showNumber(v, 0);
