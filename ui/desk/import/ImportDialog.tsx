'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useEffect, useMemo, useState } from 'react';
import type { ReactNode } from 'react';
import { ASSET, readQuantity } from '@/core';
import type { Added, Patch } from '@/core';
import { midiCutAt, midiSteps } from '@/core/formats/midi';
import type { MidiScale } from '@/core/formats/midi';
import type { MidiFile } from '@/core/formats/midiFile';
import { tableTraces } from '@/core/formats/recording';
import type { FileTraces, Table } from '@/core/formats/recording';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { tellFault } from '@/ui/parts/messages';
import { api } from '@/ui/parts/api';
import { JobCancelled } from '@/ui/parts/importJob';
import { keepScale, keptScale } from './scales';
import { ink } from '@/ui/theme/tokens';
import type { EditDesk } from '@/ui/session/edit';
import { addRecording, addSteps, addVoltages } from './imports';
import { openFile } from './openFile';
import type { Opened } from './openFile';

interface Props {
  readonly patch: Patch;
  readonly edit: EditDesk;
  readonly onDone: (id: string) => void;
  readonly onClose: () => void;
}

/** Brings a file in: its kind is seen from its name, its scale is asked once. */
export function ImportDialog({ patch, edit, onDone, onClose }: Props) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [job, setJob] = useState<ReturnType<typeof openFile> | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  useEffect(() => () => job?.cancel(), [job]);
  const read = async (file: File): Promise<void> => {
    const reading = openFile(file, setProgress);
    setProgress(null);
    setJob(reading);
    setFault(null);
    setOpened(null);
    try {
      const result = await reading.done;
      if (result.ok) setOpened(result.value);
      else setFault(result.errors);
    } catch (error) {
      if (!(error instanceof JobCancelled)) setFault(error instanceof Error ? error.message : String(error));
    }
    setJob((now) => (now === reading ? null : now));
  };
  const finish = (label: string, made: Added | null): void => {
    if (!made) return;
    edit(label, made.edits);
    onClose();
    onDone(made.id);
  };
  const record = async (name: string, sampleRate: number, values: Float32Array, scale: number): Promise<void> => {
    const volts = values.map((v) => v * scale);
    const { id } = await api.putAsset(name, sampleRate, volts);
    finish(`bring in ${name}`, addRecording(patch, name, id));
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="bring-title" maxWidth="sm" fullWidth>
      <DialogTitle id="bring-title">Bring in a file</DialogTitle>
      <DialogContent>
        <Box component="label" sx={{ display: 'block', mb: 1.5 }}>
          A Standard MIDI File, a CSV table or a WAV file
          <Box
            component="input"
            type="file"
            accept=".mid,.midi,.csv,.txt,.wav"
            data-bring
            sx={{ display: 'block', mt: 0.5, font: 'inherit' }}
            onChange={(e) => {
              const input = e.target as HTMLInputElement;
              const file = input.files?.[0];
              // So that the same file can be chosen again.
              input.value = '';
              if (file) void read(file);
            }}
          />
        </Box>
        {job && (
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
            <LinearProgress
              variant={progress === null ? 'indeterminate' : 'determinate'}
              value={100 * (progress ?? 0)}
              aria-label="The file is being read"
              sx={{ flex: 1 }}
            />
            {progress !== null && <Box component="span">{`${Math.round(100 * progress)} %`}</Box>}
            <Button onClick={job.cancel}>Stop reading</Button>
          </Box>
        )}
        {fault && (
          <Box role="alert" sx={{ color: ink.error }}>
            {`${fault} Nothing was changed.`}
          </Box>
        )}
        {opened?.is === 'midi' && (
          <MidiFields
            file={opened.file}
            onSteps={(track, scale) => finish(`bring in ${opened.name}`, addSteps(patch, opened.file, track, scale))}
            onVoltages={(track, scale, controllers) =>
              finish(`bring in ${opened.name}`, addVoltages(patch, opened.file, track, scale, controllers))
            }
          />
        )}
        {opened?.is === 'csv' && <CsvFields name={opened.name} table={opened.table} onUse={record} />}
        {opened?.is === 'wav' && (
          <TraceFields
            key={opened.name}
            traces={opened.traces}
            note={opened.traces.says}
            kind="wav"
            says="1.0 in the file is"
            start={10}
            onUse={(column, scale) => record(opened.name, opened.traces.sampleRate, column, scale)}
          />
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
      </DialogActions>
    </Dialog>
  );
}

function Field({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box component="label" sx={{ display: 'flex', gap: 1, alignItems: 'center', minHeight: 32 }}>
      <Box component="span" sx={{ minWidth: 190 }}>
        {label}
      </Box>
      {children}
    </Box>
  );
}

interface NumberProps {
  readonly label: string;
  readonly unit: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
}

function NumberInput({ label, unit, value, onChange }: NumberProps) {
  return (
    <Field label={label}>
      <Box
        component="input"
        inputMode="decimal"
        value={value}
        onChange={(e) => onChange(e.target.value)}
        sx={{ ...fieldStyle, width: 90 }}
      />
      {unit}
    </Field>
  );
}

const numberOf = (text: string): number | null => readQuantity(text, '');

/** A field that begins with what was last typed for its kind of file. */
function useKept(kind: string, otherwise: string): readonly [string, (text: string) => void] {
  const [typed, setTyped] = useState(() => keptScale(kind, otherwise));
  return [typed, (text) => (setTyped(text), keepScale(kind, text))];
}

interface MidiProps {
  readonly file: MidiFile;
  readonly onSteps: (track: number, scale: MidiScale) => void;
  readonly onVoltages: (track: number, scale: MidiScale, controllers: readonly number[]) => void;
}

function MidiFields({ file, onSteps, onVoltages }: MidiProps) {
  const [index, setIndex] = useState(0);
  const [zero, setZero] = useKept('midi zero', '60');
  const [gate, setGate] = useKept('midi gate', '5');
  const [full, setFull] = useKept('midi full', '5');
  const track = file.tracks[index];
  const values = [numberOf(zero), numberOf(gate), numberOf(full)] as const;
  const [zeroNote, gateVolts, fullVolts] = values;
  const scale = useMemo(
    () => (zeroNote === null || gateVolts === null || fullVolts === null ? null : { zeroNote, gateVolts, fullVolts }),
    [zeroNote, gateVolts, fullVolts],
  );
  const controllers = useMemo(() => [...(track?.controllers.keys() ?? [])], [track]);
  const steps = useMemo(() => (scale && track ? midiSteps(track, file.bpm, scale) : null), [file, track, scale]);
  const cutAt = useMemo(
    () => (scale && track ? midiCutAt(track, scale, controllers) : null),
    [track, scale, controllers],
  );
  if (!track) return <Box>The file holds no notes and no controllers.</Box>;
  return (
    <>
      <Field label="Track">
        <Box component="select" value={index} onChange={(e) => setIndex(Number(e.target.value))} sx={fieldStyle}>
          {file.tracks.map((t, i) => (
            <option key={i} value={i}>
              {`${t.name}: ${t.noteCount} notes, ${t.controllers.size} controllers`}
            </option>
          ))}
        </Box>
      </Field>
      <NumberInput label="Note that is 0 V" unit="(60 is C4)" value={zero} onChange={setZero} />
      <NumberInput label="A gate is" unit="V" value={gate} onChange={setGate} />
      <NumberInput label="Full velocity or controller is" unit="V" value={full} onChange={setFull} />
      <Box sx={{ display: 'flex', gap: 1, mt: 1.5, flexWrap: 'wrap' }}>
        <Button color="primary" disabled={!steps || !scale} onClick={() => scale && onSteps(index, scale)}>
          As a sequence on a clock
        </Button>
        <Button disabled={!scale} onClick={() => scale && onVoltages(index, scale, controllers)}>
          {`As voltages over time${controllers.length > 0 ? `, with controller ${controllers.join(', ')}` : ''}`}
        </Button>
      </Box>
      {cutAt !== null && (
        <Box role="status" sx={{ mt: 1 }}>
          {`A gesture holds 10 000 changes: as voltages over time it is cut after ${cutAt.toPrecision(3)} s.`}
        </Box>
      )}
      {scale && !steps && track.notes.length > 0 && (
        <Box sx={{ color: ink.softInk, mt: 1 }}>
          Its notes lie on no even grid, or need more than 64 steps, so it comes as voltages over time only.
        </Box>
      )}
    </>
  );
}

interface CsvProps {
  readonly name: string;
  readonly table: Table;
  readonly onUse: (name: string, sampleRate: number, values: Float32Array, scale: number) => Promise<void>;
}

function CsvFields({ name, table, onUse }: CsvProps) {
  const [rate, setRate] = useState(keptScale('csv rate', '1000'));
  const [timed, setTimed] = useState(table.times !== 'no');
  const sampleRate = numberOf(rate);
  const read = useMemo(
    () => (sampleRate === null ? null : tableTraces(table, timed, sampleRate)),
    [table, timed, sampleRate],
  );
  return (
    <>
      {table.times === 'unsure' && (
        <Box role="group" aria-label="What the first column is" sx={{ mb: 1 }}>
          {`The first column, ${table.names[0] ?? ''}, only rises, and nothing says that it is time.`}
          <ToggleButtonGroup
            exclusive
            size="small"
            value={timed}
            onChange={(_, value: boolean | null) => value !== null && setTimed(value)}
            sx={{ display: 'flex', mt: 0.5 }}
          >
            <ToggleButton value={true}>it is time, in seconds</ToggleButton>
            <ToggleButton value={false}>it is a voltage like the others</ToggleButton>
          </ToggleButtonGroup>
        </Box>
      )}
      {!timed && (
        <NumberInput
          label="Samples a second"
          unit="Hz"
          value={rate}
          onChange={(text) => (setRate(text), keepScale('csv rate', text))}
        />
      )}
      {read && !read.ok && (
        <Box role="alert" sx={{ color: ink.error }}>
          {read.errors}
        </Box>
      )}
      {read?.ok && (
        <TraceFields
          traces={read.value}
          note={null}
          kind="csv"
          says="1 in the file is"
          start={1}
          onUse={(column, scale) => onUse(name, read.value.sampleRate, column, scale)}
        />
      )}
    </>
  );
}

interface TraceProps {
  readonly traces: FileTraces;
  /** What is to be said of the file. */
  readonly note: string | null;
  /** Which scale is remembered. */
  readonly kind: string;
  readonly says: string;
  readonly start: number;
  readonly onUse: (values: Float32Array, scale: number) => Promise<void>;
}

function TraceFields({ traces, note, kind, says, start, onUse }: TraceProps) {
  const [index, setIndex] = useState(0);
  const [typed, setTyped] = useState(keptScale(kind, String(start)));
  const [busy, setBusy] = useState(false);
  const scale = numberOf(typed);
  const column = traces.columns[index];
  const seconds = (column?.values.length ?? 0) / traces.sampleRate;
  return (
    <>
      <Field label="Column">
        <Box component="select" value={index} onChange={(e) => setIndex(Number(e.target.value))} sx={fieldStyle}>
          {traces.columns.map((c, i) => (
            <option key={c.name} value={i}>
              {c.name}
            </option>
          ))}
        </Box>
      </Field>
      <NumberInput label={says} unit="V" value={typed} onChange={setTyped} />
      <Box sx={{ color: ink.softInk }}>
        {`${seconds.toPrecision(3)} s at ${traces.sampleRate} Hz${seconds >= ASSET.seconds ? `, cut at ${ASSET.seconds} s` : ''}`}
      </Box>
      {note && <Box role="status">{note}</Box>}
      <Button
        color="primary"
        sx={{ mt: 1.5 }}
        disabled={scale === null || !column || busy}
        onClick={() => {
          if (scale === null || !column) return;
          setBusy(true);
          keepScale(kind, typed);
          void onUse(column.values, scale)
            .catch(tellFault)
            .finally(() => setBusy(false));
        }}
      >
        Use as a recording
      </Button>
    </>
  );
}
