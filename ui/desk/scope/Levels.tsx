'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import { useState } from 'react';
import { showNumber, showVolts } from '@/core';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Trace } from './view';

const RANGES = [1, 5, 10] as const;
const WIDTH = 420;

/** Each trace's reach against a range that can be chosen: extremes, mean and RMS, as a meter at the rack would show. */
export function Levels({ traces }: { traces: readonly Trace[] }) {
  const [range, setRange] = useState<number>(5);
  const x = scaleLinear().domain([-range, range]).range([0, WIDTH]).clamp(true);
  return (
    <Box sx={{ overflow: 'auto', py: 1 }} data-levels={range}>
      <Box component="label" sx={{ fontSize: 13 }}>
        Range{' '}
        <Box component="select" value={range} onChange={(e) => setRange(Number(e.target.value))} sx={fieldStyle}>
          {RANGES.map((r) => (
            <option key={r} value={r}>{`±${r} V`}</option>
          ))}
        </Box>
      </Box>
      <Box component="table" sx={{ borderCollapse: 'collapse', mt: 1, fontSize: 13 }}>
        <caption hidden>Levels of the pinned traces</caption>
        <thead>
          <tr>
            <td />
            <td>
              <svg
                width={WIDTH}
                height="16"
                aria-hidden="true"
                fontFamily={fonts.numbers}
                fontSize="12"
                fill={ink.softInk}
              >
                {x.ticks(10).map((v) => (
                  <text key={v} x={x(v)} y="12" textAnchor={v === -range ? 'start' : v === range ? 'end' : 'middle'}>
                    {showNumber(v, range === 1 ? 1 : 0, true)}
                  </text>
                ))}
              </svg>
            </td>
            {['mean', 'RMS', 'over'].map((h) => (
              <Box
                component="th"
                scope="col"
                key={h}
                sx={{ fontWeight: 400, color: ink.softInk, pl: 2, textAlign: 'right' }}
              >
                {h}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {traces.map(({ socket, label, probe: { measures: m, trace } }) => {
            let over = 0;
            for (const v of trace) if (Math.abs(v) > range) over++;
            return (
              <tr key={socket} data-level={socket}>
                <Box
                  component="th"
                  scope="row"
                  sx={{ fontWeight: 400, textAlign: 'left', pr: 1.5, whiteSpace: 'nowrap' }}
                >
                  {label}
                </Box>
                <td>
                  <svg width={WIDTH} height="22" role="img" aria-label={`${showVolts(m.min)} to ${showVolts(m.max)}`}>
                    <rect width={WIDTH} height="22" y="0" fill="none" stroke={ink.line} />
                    <rect x={x(m.min)} width={Math.max(2, x(m.max) - x(m.min))} y="5" height="12" fill={ink.seen} />
                    <line x1={x(0)} x2={x(0)} y1="0" y2="22" stroke={ink.softInk} />
                    <line x1={x(m.mean)} x2={x(m.mean)} y1="3" y2="19" stroke={ink.trace} strokeWidth="2" />
                    {m.min < -range && <rect width="5" height="22" fill={ink.error} />}
                    {m.max > range && <rect x={WIDTH - 5} width="5" height="22" fill={ink.error} />}
                  </svg>
                </td>
                {[
                  showVolts(m.mean),
                  showVolts(m.rms, false),
                  `${showNumber((100 * over) / trace.length, 1)}\u2009%`,
                ].map((text, i) => (
                  <Box
                    component="td"
                    key={i}
                    sx={{ fontFamily: fonts.numbers, textAlign: 'right', pl: 2, whiteSpace: 'nowrap' }}
                  >
                    {text}
                  </Box>
                ))}
              </tr>
            );
          })}
        </tbody>
      </Box>
    </Box>
  );
}
