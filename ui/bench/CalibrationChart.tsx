'use client';
import Box from '@mui/material/Box';
import { CartesianGrid, ReferenceLine, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts';
import { readingUnit, showNumber } from '@/core';
import type { Calibration } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';

const figures = { fontFamily: fonts.numbers, fontSize: 11, fill: ink.ink } as const;
/** More points than this are no picture. */
const MOST = 2000;

/** What was read less what was predicted, over what was predicted: with modules as meant, and as they were learned. */
export function CalibrationChart({ found: { fit, rms } }: { readonly found: Calibration }) {
  const volts = fit.filter((p) => readingUnit(p.quantity) === 'V');
  const some = volts.filter((_, i) => i % Math.ceil(volts.length / MOST) === 0);
  const of = (key: 'before' | 'after') => some.map((p) => ({ x: p[key], y: (p.value - p[key]) / p.sigma }));
  return (
    <Box data-rms={`${rms.before.toFixed(2)} ${rms.after.toFixed(2)}`}>
      <Box component="h2" sx={{ fontSize: 15, m: 0 }}>
        Reading minus prediction (sigma) against predicted volts
      </Box>
      <Box sx={{ display: 'flex', gap: 2, fontSize: 13 }}>
        <Box sx={{ color: ink.wanted }}>{`○ before: ${showNumber(rms.before, 1)} RMS`}</Box>
        <Box sx={{ color: ink.trace }}>{`● after: ${showNumber(rms.after, 1)} RMS`}</Box>
      </Box>
      <Box
        role="img"
        aria-label={`Reading minus prediction: ${showNumber(rms.before, 1)} sigma before, ${showNumber(rms.after, 1)} after`}
        sx={{ height: 240 }}
      >
        <ResponsiveContainer>
          <ScatterChart margin={{ left: 0, right: 16, top: 12, bottom: 4 }}>
            <CartesianGrid stroke={ink.line} />
            <XAxis type="number" dataKey="x" tick={figures} domain={['auto', 'auto']} />
            <YAxis type="number" dataKey="y" tick={figures} width={48} />
            <ReferenceLine y={0} stroke={ink.softInk} />
            <Scatter data={of('before')} fill="none" stroke={ink.wanted} isAnimationActive={false} />
            <Scatter data={of('after')} fill={ink.trace} isAnimationActive={false} />
          </ScatterChart>
        </ResponsiveContainer>
      </Box>
    </Box>
  );
}
