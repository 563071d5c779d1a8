'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import { CartesianGrid, Line, LineChart, ReferenceArea, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { showNumber, showQuantity, showVoltRange } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Response } from './response';

const figures = { fontFamily: fonts.numbers, fontSize: 11, fill: ink.ink } as const;

/** What a destination makes of every voltage, and which of them can arrive. */
export function ResponseChart({ response }: { readonly response: Response }) {
  const { socket, unit, points, drive } = response;
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return null;
  const octaves = unit === 'Hz' || (unit === 's' && points.every((p) => p.value > 0));
  const shown = (v: number): string => showQuantity(v, unit).replace(/\s/g, '\u00a0');
  const says = `${socket}: ${shown(first.value)} at ${showNumber(first.volts, 1)} V, ${shown(last.value)} at ${showNumber(last.volts, 1)} V. Incoming range: ${showVoltRange(...drive)}.`;
  return (
    <Box data-response={socket}>
      <Box role="img" aria-label={says} sx={{ height: 150 }}>
        <ResponsiveContainer>
          <LineChart data={[...points]} margin={{ left: 4, right: 12, top: 8, bottom: 0 }}>
            <CartesianGrid stroke={ink.line} />
            <ReferenceArea
              x1={Math.max(first.volts, drive[0])}
              x2={Math.min(last.volts, drive[1])}
              fill={ink.bound}
              fillOpacity={0.9}
            />
            <XAxis
              type="number"
              dataKey="volts"
              domain={[first.volts, last.volts]}
              ticks={scaleLinear().domain([first.volts, last.volts]).ticks(5)}
              tick={figures}
              tickFormatter={(v: number) => showNumber(v, 0)}
              unit="&#8239;V"
            />
            <YAxis
              scale={octaves ? 'log' : 'auto'}
              domain={['dataMin', 'dataMax']}
              tick={figures}
              width={64}
              tickCount={4}
              tickFormatter={shown}
            />
            <Line dataKey="value" stroke={ink.trace} dot={false} isAnimationActive={false} type="linear" />
          </LineChart>
        </ResponsiveContainer>
      </Box>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{says}</Box>
    </Box>
  );
}
