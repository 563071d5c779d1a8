import { idOf } from '@/core';
import Box from '@mui/material/Box';
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

/** The measures as a table: what the picture shows, in numbers. Volts unless said. */
export function MeasuresTable({ traces, sampleRate, cursors }: Props) {
  const [a, b] = cursors;
  const at = (t: Trace, seconds: number): string =>
    showNumber(valueAtTime(t.probe.trace, sampleRate, seconds), 2, true);
  const phase = (t: Trace): string => {
    const degrees = phaseApart(t.probe, b - a);
    if (degrees === null) return '–';
    return Math.abs(degrees) > 3600 ? `${showNumber(degrees / 360, 1)} cycles` : `${showNumber(degrees, 0)}°`;
  };
  const cell = { textAlign: 'right', paddingLeft: 1.5, fontWeight: 400, whiteSpace: 'nowrap' } as const;
  return (
    <Box role="region" aria-label="Measures" tabIndex={0} sx={{ overflowX: 'auto' }}>
      <Box
        component="table"
        sx={{ fontFamily: fonts.numbers, fontSize: 12.5, borderCollapse: 'collapse', lineHeight: 1.55 }}
      >
        <caption hidden>Measures of the pinned traces, volts unless said</caption>
        <thead>
          <tr>
            <td />
            {traces.map((t) => (
              <Box
                component="th"
                scope="col"
                key={t.socket}
                sx={{ ...cell, maxWidth: 92, overflow: 'hidden', textOverflow: 'ellipsis' }}
              >
                {idOf(t.socket)}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, show]) => (
            <Row key={name} name={name} values={traces.map((t) => show(t.probe.measures))} />
          ))}
          <Row name={`A ${showSeconds(a)}`} values={traces.map((t) => at(t, a))} />
          <Row name={`B ${showSeconds(b)}`} values={traces.map((t) => at(t, b))} />
          <Row name={`A → B ${showSeconds(b - a)}`} values={traces.map(phase)} />
        </tbody>
      </Box>
    </Box>
  );
}

function Row({ name, values }: { name: string; values: readonly string[] }) {
  return (
    <tr>
      <Box
        component="th"
        scope="row"
        sx={{ textAlign: 'left', fontWeight: 400, fontFamily: fonts.text, color: ink.softInk, whiteSpace: 'nowrap' }}
      >
        {name}
      </Box>
      {values.map((v, i) => (
        <Box component="td" key={i} sx={{ textAlign: 'right', paddingLeft: 1.5, whiteSpace: 'nowrap' }}>
          {v}
        </Box>
      ))}
    </tr>
  );
}
