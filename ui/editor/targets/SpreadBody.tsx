'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { knobPlace, placeName, showNumber, showRange, USUAL_ERRORS } from '@/core';
import type { ModuleErrors, Patch, ToleranceReport } from '@/core';
import { later } from '@/ui/parts/later';
import { SelectField } from '@/ui/parts/SelectField';
import { QuantityField } from '@/ui/parts/QuantityField';
import { channels } from '@/ui/session/channels';
import type { DeskStore } from '@/ui/session/desk';
import { useSolving } from '@/ui/session/solving';
import { fonts, ink } from '@/ui/theme/tokens';
import { SettingRow } from '../stage/SettingRow';
import { sharesShown } from './spread';

const SpreadChart = later(() => import('./SpreadChart').then((m) => m.SpreadChart));

/** Draws of a look, and of a closer one. */
const DRAWS = 2000;

/** What can be off, as it is typed. */
const ERRORS = [
  { key: 'knob', label: 'Knob position', unit: '%', times: 100, most: 20 },
  { key: 'gain', label: 'Gain', unit: '%', times: 100, most: 20 },
  { key: 'offset', label: 'Output offset', unit: 'mV', times: 1000, most: 500 },
] as const;

/** What all modules are off by, and what is known of single ones. */
interface Errors {
  readonly all: ModuleErrors;
  readonly modules: Readonly<Record<string, Partial<ModuleErrors>>>;
}

interface Props {
  readonly desk: DeskStore;
  /** The socket whose path is shown. */
  readonly shown: string;
}

/** What knobs and gains that are a little off make of the end that is shown, and which knob makes it. */
export function SpreadBody({ desk, shown }: Props) {
  const solving = useSolving();
  const { spread, busy, progress } = useStore(solving);
  const patch = useStore(desk, (s) => s.patch);
  const measured = useStore(channels, (s) => s.limits?.spreads);
  const [typed, setErrors] = useState<Errors>({ all: USUAL_ERRORS, modules: {} });
  const errors = useMemo(() => withMeasured(typed, measured), [typed, measured]);
  const report = spread?.patch === patch ? spread.report : null;
  return (
    <>
      <ErrorFields patch={patch} errors={errors} onChange={setErrors} />
      {busy === 'spread' ? (
        <Box>
          <LinearProgress
            aria-label="Running trials"
            variant={progress === null ? 'indeterminate' : 'determinate'}
            value={100 * (progress ?? 0)}
          />
          <Button onClick={() => solving.getState().cancel()} sx={{ mt: 0.75 }}>
            Stop
          </Button>
        </Box>
      ) : (
        <Button onClick={() => solving.getState().spreadOf({ ...errors.all, modules: errors.modules, draws: DRAWS })}>
          {report ? 'Run again' : `Run ${DRAWS} trials`}
        </Button>
      )}
      {report && <Report report={report} at={shown} modules={patch.modules} />}
    </>
  );
}

/** What was measured of the channels that modules sit on, where nobody typed something else. */
function withMeasured({ all, modules }: Errors, measured: ReadonlyMap<string, number> | undefined): Errors {
  const known = [...(measured ?? [])].map(([id, knob]) => [id, { knob, ...modules[id] }] as const);
  return { all, modules: { ...modules, ...Object.fromEntries(known) } };
}

interface FieldsProps {
  readonly patch: Patch;
  readonly errors: Errors;
  readonly onChange: (errors: Errors) => void;
}

/** How far off all modules are, or one that is known better or worse. */
function ErrorFields({ patch, errors, onChange }: FieldsProps) {
  const [id, setId] = useState('');
  const own = errors.modules[id];
  const put = (key: keyof ModuleErrors, value: number): void =>
    onChange(
      id === ''
        ? { ...errors, all: { ...errors.all, [key]: value } }
        : { ...errors, modules: { ...errors.modules, [id]: { ...own, [key]: value } } },
    );
  return (
    <>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>Assumed errors (1 σ)</Box>
      <SettingRow label="Module">
        <SelectField
          label="Module"
          value={id}
          options={[
            ['', 'all modules'] as const,
            ...patch.modules.map(
              (m) => [m.id, `${placeName(patch.modules, m.id)}${errors.modules[m.id] ? ' (custom)' : ''}`] as const,
            ),
          ]}
          onChange={setId}
          sx={{ width: 128 }}
        />
      </SettingRow>
      {ERRORS.map(({ key, label, unit, times, most }) => (
        <SettingRow key={`${id} ${key}`} label={label}>
          <QuantityField
            label={label}
            unit={unit}
            value={(own?.[key] ?? errors.all[key]) * times}
            min={0}
            max={most}
            width={128}
            onChange={(value) => put(key, value / times)}
          />
        </SettingRow>
      ))}
    </>
  );
}

interface ReportProps {
  readonly report: ToleranceReport;
  readonly at: string;
  readonly modules: Parameters<typeof knobPlace>[0];
}

/** A hand is too coarse for nearly every knob where a target is exact; said is what can be heard, of the wanted span. */
const SHOWN = 0.01;

const head = { textAlign: 'right', whiteSpace: 'nowrap', px: 0.5 } as const;
const cell = { fontFamily: fonts.numbers, textAlign: 'right', whiteSpace: 'nowrap', px: 0.5 } as const;

function Report({ report, at, modules }: ReportProps) {
  const reading = report.readings.find((r) => r.at === at);
  const shares = sharesShown(report, at);
  const limited = report.handLimited.filter((h) => h.at === at && h.share > SHOWN);
  if (!reading) return <Box sx={{ mt: 1 }}>There is no tolerance value for this destination.</Box>;
  return (
    <Box data-spread={at} sx={{ mt: 1 }}>
      <Box>
        {'5 to 95%: lowest '}
        <Box component="span" sx={{ fontFamily: fonts.numbers }}>
          {showRange(reading.low[0], reading.low[1], reading.unit)}
        </Box>
        {', highest '}
        <Box component="span" sx={{ fontFamily: fonts.numbers }}>
          {showRange(reading.high[0], reading.high[1], reading.unit)}
        </Box>
      </Box>
      {reading.by === 'bound' ? null : (
        <Box sx={{ fontSize: 13, color: ink.softInk }}>
          Of what arrives; the contributions are of the guaranteed range.
        </Box>
      )}
      <SpreadChart reading={reading} />
      {shares.length > 0 && (
        <Table sx={{ mt: 1 }} aria-label="Contribution of each knob">
          <TableHead>
            <TableRow>
              <TableCell sx={{ px: 0 }}>knob</TableCell>
              <TableCell sx={head}>Contribution</TableCell>
              <TableCell sx={head}>{`${shares[0]?.unit ?? ''} per degree`}</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {shares.map((s) => (
              <TableRow key={s.knob}>
                <TableCell sx={{ px: 0 }}>{knobPlace(modules, s.knob)}</TableCell>
                <TableCell sx={cell}>{`${showNumber(100 * s.share, 0)}%`}</TableCell>
                <TableCell sx={cell}>{showNumber(s.perDegree, Math.abs(s.perDegree) < 1 ? 2 : 0)}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {limited.map((h) => (
        <Box key={h.knob} data-hand-limited={h.knob} sx={{ fontSize: 13, mt: 0.5 }}>
          {`Set ${knobPlace(modules, h.knob)} ${h.set}: 0.5% of its travel moves this limit by ${showNumber(100 * h.share, 1)}% of the target range.`}
        </Box>
      ))}
    </Box>
  );
}
