'use client';
import Box from '@mui/material/Box';
import { scaleLinear, scaleLog } from 'd3-scale';
import { useState } from 'react';
import { showDb, showHz, showNumber } from '@/core';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { useSize } from '@/ui/parts/useSize';
import { fonts, ink } from '@/ui/theme/tokens';
import type { SpectrumAnswer } from '@/wire/core';
import type { Trace } from './view';

const EDGE = { left: 44, right: 12, top: 12, bottom: 22 } as const;
const FLOOR = -90;
const LOWEST = 10;

interface Props {
  readonly traces: readonly Trace[];
  readonly spectra: ReadonlyMap<string, SpectrumAnswer>;
}

/** A probe's amplitudes by frequency, its peaks by name, and where a product's lines must lie. */
export function SpectrumPlot({ traces, spectra }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [box, size] = useSize<HTMLDivElement>({ width: 500, height: 200 });
  const sounding = traces.find((t) => (spectra.get(t.socket)?.peaks.length ?? 0) > 0);
  const trace = traces.find((t) => t.socket === chosen) ?? sounding ?? traces[0];
  const spectrum = trace && spectra.get(trace.socket);
  if (!trace) return null;
  const [width, height] = [
    Math.max(120, size.width - EDGE.left - EDGE.right),
    Math.max(100, size.height - EDGE.top - EDGE.bottom),
  ];
  const nyquist = spectrum ? spectrum.binHz * spectrum.volts.length : 24_000;
  const x = scaleLog()
    .domain([Math.min(LOWEST, nyquist / 4), nyquist])
    .range([0, width]);
  const y = scaleLinear().domain([FLOOR, 6]).range([height, 0]).clamp(true);
  return (
    <Box sx={{ flex: 1, minHeight: 190, display: 'flex', gap: 2 }}>
      <Box ref={box} sx={{ flex: 1, minWidth: 0, overflow: 'hidden' }}>
        <svg
          width={size.width}
          height={height + EDGE.top + EDGE.bottom}
          role="img"
          aria-label={`Spectrum of ${trace.label}, decibels under its loudest peak`}
          data-spectrum={spectrum ? 'ready' : 'waiting'}
        >
          <g transform={`translate(${EDGE.left},${EDGE.top})`} fontFamily={fonts.numbers} fontSize="12" fill={ink.ink}>
            {y.ticks(5).map((v) => (
              <g key={v}>
                <line x1="0" x2={width} y1={y(v)} y2={y(v)} stroke={ink.line} />
                <text x="-8" y={y(v) + 4} textAnchor="end">
                  {showNumber(v, 0)}
                </text>
              </g>
            ))}
            {[10, 100, 1000, 10_000]
              .filter((hz) => hz <= nyquist)
              .map((hz) => (
                <g key={hz}>
                  <line x1={x(hz)} x2={x(hz)} y1="0" y2={height} stroke={ink.line} />
                  <text x={x(hz)} y={height + 16} textAnchor="middle">
                    {showHz(hz)}
                  </text>
                </g>
              ))}
            {spectrum && <path d={pathOf(spectrum, x, y, width)} fill="none" stroke={ink.trace} strokeWidth="1.2" />}
            {spectrum?.products.map((p) => (
              <line
                key={p.is}
                x1={x(Math.max(LOWEST, p.predictedHz))}
                x2={x(Math.max(LOWEST, p.predictedHz))}
                y1="0"
                y2={height}
                stroke={ink.wanted}
                strokeDasharray="4 3"
              />
            ))}
          </g>
        </svg>
      </Box>
      <Box sx={{ width: 270, overflow: 'auto', fontSize: 13 }}>
        <Box
          component="select"
          aria-label="Trace"
          value={trace.socket}
          onChange={(e) => setChosen(e.target.value)}
          sx={{ ...fieldStyle, maxWidth: '100%' }}
        >
          {traces.map((t) => (
            <option key={t.socket} value={t.socket}>
              {t.label}
            </option>
          ))}
        </Box>
        {!spectrum && <Box role="status">Working it out…</Box>}
        {spectrum && <Peaks spectrum={spectrum} />}
      </Box>
    </Box>
  );
}

/** The loudest bin of each pixel, so that no line falls between two. */
function pathOf(
  { volts, binHz }: SpectrumAnswer,
  x: (hz: number) => number,
  y: (db: number) => number,
  width: number,
): string {
  const top = volts.reduce((a, b) => Math.max(a, b), 1e-12);
  const columns = new Float64Array(Math.ceil(width) + 1).fill(-Infinity);
  for (let k = 1; k < volts.length; k++) {
    const px = Math.round(x(k * binHz));
    if (px < 0 || px >= columns.length) continue;
    columns[px] = Math.max(columns[px] as number, 20 * Math.log10(Math.max(1e-12, volts[k] as number) / top));
  }
  let d = '';
  columns.forEach((db, px) => {
    if (db > -Infinity) d += `${d ? 'L' : 'M'}${px},${y(db).toFixed(1)}`;
  });
  return d;
}

function Peaks({ spectrum: { peaks, products } }: { spectrum: SpectrumAnswer }) {
  const cell = { textAlign: 'right', pl: 1, whiteSpace: 'nowrap' } as const;
  return (
    <Box component="table" sx={{ borderCollapse: 'collapse', fontFamily: fonts.numbers, fontSize: 12.5, mt: 0.5 }}>
      <caption hidden>Peaks</caption>
      <tbody>
        {peaks.slice(0, 8).map((p) => (
          <tr key={p.hz}>
            <td>{showHz(p.hz)}</td>
            <Box component="td" sx={cell}>{`${p.note} ${showNumber(p.cents, 0, true)}\u2009ct`}</Box>
            <Box component="td" sx={cell}>
              {showDb(p.db)}
            </Box>
          </tr>
        ))}
        {peaks.length === 0 && (
          <tr>
            <td>No peak that this window can tell apart.</td>
          </tr>
        )}
        {products.map((p) => (
          <tr key={p.is}>
            <Box component="td" colSpan={3} sx={{ fontFamily: fonts.text, pt: 0.5 }}>
              {`${p.is}: ${showHz(p.predictedHz)} predicted, ${p.measuredHz === null ? 'not found' : `${showHz(p.measuredHz)} found`}`}
            </Box>
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
