'use client';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { useQuery } from '@tanstack/react-query';
import dayjs from 'dayjs';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { placeName } from '@/core';
import { dateTime } from '@/ui/parts/dates';
import { VERDICTS } from '@/ui/parts/verdicts';
import { fonts, ink } from '@/ui/theme/tokens';
import { benchApi } from './benchApi';
import { figure, QUANTITY_NAMES } from './quantityNames';
import type { OpenSession } from './useSession';

const figures = { fontFamily: fonts.numbers, fontSize: 11, fill: ink.ink } as const;

/** A reading at its socket over earlier sessions of this patch. */
export function Trend({ open, chosen }: { readonly open: OpenSession; readonly chosen: number | null }) {
  const { session, patch, standing } = open;
  const reading = standing.find((r) => r.id === chosen) ?? standing.at(-1);
  const { data } = useQuery({
    queryKey: ['trend', session.patchId, reading?.at, reading?.quantity, session.readings],
    queryFn: () => benchApi.trend(session.patchId, reading?.at ?? '', reading?.quantity ?? ''),
    enabled: reading !== undefined && session.patchId !== '' && !session.simulated,
  });
  if (session.simulated) return <p>Readings of a simulated rack have no trend.</p>;
  if (!reading) return <p>Select a reading to see it in earlier sessions.</p>;
  const points = (data ?? []).map((p) => ({ ...p, at: dayjs(p.started).valueOf() }));
  return (
    <Box sx={{ pt: 1.5 }}>
      <Box component="h2" sx={{ fontSize: 15, m: 0 }}>
        {`${placeName(patch.modules, reading.at)}, ${QUANTITY_NAMES[reading.quantity]}`}
      </Box>
      {points.length > 1 && (
        <Box role="img" aria-label={`Readings of ${reading.at} over ${points.length} sessions`} sx={{ height: 200 }}>
          <ResponsiveContainer>
            <LineChart data={points} margin={{ left: 0, right: 16, top: 12, bottom: 4 }}>
              <CartesianGrid stroke={ink.line} vertical={false} />
              <XAxis
                type="number"
                dataKey="at"
                domain={['dataMin', 'dataMax']}
                tick={figures}
                tickFormatter={(v: number) => dayjs(v).format('D MMM')}
              />
              <YAxis tick={figures} width={52} domain={['auto', 'auto']} />
              <Line
                dataKey="expected"
                stroke={ink.softInk}
                strokeDasharray="4 4"
                dot={false}
                isAnimationActive={false}
              />
              <Line dataKey="value" stroke={ink.trace} strokeWidth={2} isAnimationActive={false} />
            </LineChart>
          </ResponsiveContainer>
        </Box>
      )}
      <Table size="small" aria-label="Readings over time">
        <TableBody>
          {points.toReversed().map((p, i) => (
            <TableRow key={`${p.session} ${i}`}>
              <TableCell sx={{ fontFamily: fonts.numbers, fontSize: 13 }}>{dateTime(p.started)}</TableCell>
              <TableCell sx={{ fontFamily: fonts.numbers }}>{figure(p.value, p.unit)}</TableCell>
              <TableCell sx={{ color: p.verdict ? VERDICTS[p.verdict].colour : 'inherit', fontWeight: 700 }}>
                {p.verdict ? VERDICTS[p.verdict].text : ''}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
