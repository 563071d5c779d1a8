import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableContainer from '@mui/material/TableContainer';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { showHz, showNumber, showSeconds } from '@/core';
import type { Measures } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import { phaseApart, valueAtTime } from './view';
import type { Trace } from './view';

const rows: readonly [string, (m: Measures) => string][] = [
  ['min', (m) => showNumber(m.min, 2, true)],
  ['max', (m) => showNumber(m.max, 2, true)],
  ['p–p', (m) => showNumber(m.peakToPeak, 2)],
  ['mean', (m) => showNumber(m.mean, 2, true)],
  ['RMS', (m) => showNumber(m.rms, 2)],
  ['period', (m) => (m.period === null ? '–' : showSeconds(m.period))],
  ['freq.', (m) => (m.frequency === null ? '–' : showHz(m.frequency))],
];

interface Props {
  readonly traces: readonly Trace[];
  readonly sampleRate: number;
  readonly cursors: readonly [number, number];
}

function phaseText(t: Trace, seconds: number): string {
  const degrees = phaseApart(t.probe, seconds);
  if (degrees === null) return '–';
  return Math.abs(degrees) > 3600
    ? `${showNumber(degrees / 360, Math.abs(degrees) < 36_000 ? 1 : 0)} cycles`
    : `${showNumber(degrees, 0)}°`;
}

/** A head is as wide as its figures; four of them stand closer. */
const headStyle = (columns: number) => ({
  textAlign: 'right',
  verticalAlign: 'bottom',
  minWidth: { xs: 54, md: columns > 3 ? 58 : 72 },
  maxWidth: 96,
  lineHeight: 1.2,
  background: ink.paper,
});

/** The measures as a table: what the picture shows, in numbers. Volts unless said. */
export function MeasuresTable({ traces, sampleRate, cursors }: Props) {
  const [a, b] = cursors;
  const at = (t: Trace, seconds: number): string =>
    showNumber(valueAtTime(t.probe.trace, sampleRate, seconds), 2, true);
  return (
    <TableContainer role="region" aria-label="Measures" tabIndex={0} sx={{ maxHeight: '100%' }}>
      <Table
        stickyHeader
        sx={{ '& td, & th': { py: '1px', pl: 0, pr: { xs: 0.5, md: 1 }, fontSize: 12.5, border: 0 } }}
      >
        <caption hidden>Measures of the traces, volts unless said</caption>
        <TableHead>
          <TableRow>
            <TableCell sx={{ background: ink.paper }} />
            {traces.map((t) => (
              <TableCell key={t.socket} scope="col" title={t.label} sx={headStyle(traces.length)}>
                {t.label}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map(([name, show]) => (
            <Row key={name} name={name} values={traces.map((t) => show(t.probe.measures))} />
          ))}
          <Row name={`A ${showSeconds(a)}`} values={traces.map((t) => at(t, a))} />
          <Row name={`B ${showSeconds(b)}`} values={traces.map((t) => at(t, b))} />
          <Row name={`A → B ${showSeconds(b - a)}`} values={traces.map((t) => phaseText(t, b - a))} />
        </TableBody>
      </Table>
    </TableContainer>
  );
}

function Row({ name, values }: { name: string; values: readonly string[] }) {
  return (
    <TableRow>
      <TableCell component="th" scope="row" sx={{ color: ink.softInk, whiteSpace: 'nowrap' }}>
        {name}
      </TableCell>
      {values.map((v, i) => (
        <TableCell key={i} sx={{ textAlign: 'right', whiteSpace: 'nowrap', fontFamily: fonts.numbers }}>
          {v}
        </TableCell>
      ))}
    </TableRow>
  );
}
