'use client';
import Box from '@mui/material/Box';
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { showQuantity } from '@/core';
import type { ReadingTolerance } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import { histogram } from './spread';

const figures = { fontFamily: fonts.numbers, fontSize: 11, fill: ink.ink } as const;

/** How often each end came out where, of all draws: the lowest and the highest beside each other. */
export function SpreadChart({ reading }: { readonly reading: ReadingTolerance }) {
  return (
    <Box>
      {(['low', 'high'] as const).map((end) => (
        <Box
          key={end}
          role="img"
          aria-label={`Distribution of the ${end === 'low' ? 'minimum' : 'maximum'}`}
          sx={{ height: 92 }}
        >
          <ResponsiveContainer>
            <BarChart
              data={histogram(reading.bins[end])}
              margin={{ left: 36, right: 36, top: 6, bottom: 0 }}
              barCategoryGap={1}
            >
              <CartesianGrid stroke={ink.line} vertical={false} />
              <XAxis
                type="number"
                dataKey="at"
                domain={['dataMin', 'dataMax']}
                ticks={[reading.bins[end].from, reading.bins[end].to]}
                tick={figures}
                interval={0}
                tickFormatter={(v: number) => showQuantity(v, reading.unit).replace(/\s/g, '\u00a0')}
              />
              <YAxis hide domain={[0, 'dataMax']} />
              <Bar dataKey="count" fill={end === 'low' ? ink.seen : ink.trace} isAnimationActive={false} />
            </BarChart>
          </ResponsiveContainer>
        </Box>
      ))}
    </Box>
  );
}
