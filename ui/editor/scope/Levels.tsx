'use client';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useMemo, useState } from 'react';
import { Bar, BarChart, CartesianGrid, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { makeUpDb, showDb, showNumber, showVolts } from '@/core';
import { SelectField } from '@/ui/parts/SelectField';
import { fonts, ink } from '@/ui/theme/tokens';
import { levelsOf } from './levelBins';
import type { Trace } from './view';

const RANGES = [
  ['1', '±1 V'],
  ['5', '±5 V'],
  ['10', '±10 V'],
] as const;

const figures = { fontFamily: fonts.numbers, fontSize: 12, fill: ink.softInk } as const;
const numberCell = { fontFamily: fonts.numbers, textAlign: 'right', whiteSpace: 'nowrap' } as const;
/** Height of one trace's bar, pixels. */
const ROW = 34;

type OverTime = ReturnType<typeof levelsOf>[number]['overTime'];

/** What would make a trace as loud at its loudest as the first one. */
function makeUpText(level: OverTime, first: OverTime): string {
  const by = level && first && level !== first ? makeUpDb(level, first) : null;
  return by === null ? '–' : `${by < 0 ? '' : '+'}${showDb(by)}`;
}

/** Each trace's reach against a range that can be chosen: extremes, mean and RMS, as a meter at the rack would show. */
export function Levels({ traces, sampleRate }: { traces: readonly Trace[]; sampleRate: number }) {
  const [range, setRange] = useState<(typeof RANGES)[number][0]>('5');
  const volts = Number(range);
  const levels = useMemo(() => levelsOf(traces, volts, sampleRate), [traces, volts, sampleRate]);

  return (
    <Box sx={{ overflow: 'auto', py: 1, display: 'flex', flexWrap: 'wrap', gap: 2 }} data-levels={range}>
      <Box sx={{ flex: '2 1 250px', minWidth: 240 }}>
        <SelectField label="Range" value={range} options={RANGES} onChange={setRange} />
        <Box sx={{ height: ROW * levels.length + 40 }}>
          <ResponsiveContainer>
            <BarChart data={levels} layout="vertical" margin={{ left: 8, right: 16, top: 8, bottom: 0 }}>
              <CartesianGrid stroke={ink.line} horizontal={false} />
              <XAxis
                type="number"
                domain={[-volts, volts]}
                tick={figures}
                tickFormatter={(v) => showNumber(v, 1, true)}
              />
              <YAxis type="category" dataKey="label" width={120} tick={{ fontSize: 12, fill: ink.ink }} />
              <ReferenceLine x={0} stroke={ink.softInk} />
              <Bar dataKey="reach" fill={ink.seen} barSize={14} isAnimationActive={false} />
            </BarChart>
          </ResponsiveContainer>
        </Box>
      </Box>
      <Box sx={{ flex: '1 1 260px' }}>
        <Table>
          <caption hidden>Levels of the traces</caption>
          <TableHead>
            <TableRow>
              {['', 'low', 'high', 'mean', 'RMS', 'over'].map((head) => (
                <TableCell key={head} sx={{ textAlign: head ? 'right' : 'left' }}>
                  {head}
                </TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {levels.map((l) => (
              <TableRow key={l.socket} data-level={l.socket}>
                <TableCell component="th" scope="row">
                  {l.label}
                </TableCell>
                <TableCell sx={numberCell}>{showVolts(l.min)}</TableCell>
                <TableCell sx={numberCell}>{showVolts(l.max)}</TableCell>
                <TableCell sx={numberCell}>{showVolts(l.mean)}</TableCell>
                <TableCell sx={numberCell}>{showVolts(l.rms, false)}</TableCell>
                <TableCell sx={numberCell}>{`${showNumber(l.overPercent, 1)}%`}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
        <OverTimeTable levels={levels} />
      </Box>
    </Box>
  );
}

/** How loud each trace is over time, and what would make it as loud as the first. */
function OverTimeTable({ levels }: { levels: ReturnType<typeof levelsOf> }) {
  const first = levels[0]?.overTime ?? null;
  const decibels = (db: number | null | undefined): string => (db === undefined ? '–' : showDb(db));
  return (
    <Table sx={{ mt: 1 }} data-over-time>
      <caption hidden>RMS in steps of 50 ms, dB relative to 1 V</caption>
      <TableHead>
        <TableRow>
          {['RMS, 50 ms', 'least', 'most', 'dips by', 'make up'].map((head, i) => (
            <TableCell key={head} sx={{ textAlign: i === 0 ? 'left' : 'right' }}>
              {head}
            </TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody>
        {levels.map(({ socket, label, overTime }) => (
          <TableRow key={socket}>
            <TableCell component="th" scope="row">
              {label}
            </TableCell>
            <TableCell sx={numberCell}>{decibels(overTime?.lowestDb)}</TableCell>
            <TableCell sx={numberCell}>{decibels(overTime?.highestDb)}</TableCell>
            <TableCell sx={numberCell}>{overTime?.dipDb == null ? '–' : showDb(overTime.dipDb)}</TableCell>
            <TableCell sx={numberCell}>{makeUpText(overTime, first)}</TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
