'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import type { Added, Patch } from '@/core';
import { api } from '@/ui/parts/api';
import { DropZone } from '@/ui/parts/DropZone';
import type { EditDesk } from '@/ui/session/edit';
import { CsvFields } from './CsvFields';
import { addRecording, addSteps, addVoltages, setScale } from './imports';
import { MidiFields } from './MidiFields';
import { ScaleFields } from './ScaleFields';
import { TraceFields } from './TraceFields';
import { useOpened } from './useOpened';

interface Props {
  readonly patch: Patch;
  readonly edit: EditDesk;
  readonly onDone: (id: string) => void;
  readonly onClose: () => void;
}

/** Brings a file in: its kind is seen from its name, its scale is asked once. */
export function ImportDialog({ patch, edit, onDone, onClose }: Props) {
  const { opened, fault, progress, reading, cancel, read } = useOpened();
  const finish = (label: string, made: Added | null): void => {
    if (!made) return;
    edit(label, made.edits);
    onClose();
    onDone(made.id);
  };
  const record = async (name: string, sampleRate: number, values: Float32Array, scale: number): Promise<void> => {
    const volts = values.map((v) => v * scale);
    const { id } = await api.putAsset(name, sampleRate, volts);
    finish(`Import ${name}`, addRecording(patch, name, id, volts));
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="bring-title" maxWidth="sm" fullWidth>
      <DialogTitle id="bring-title">Import a file</DialogTitle>
      <DialogContent>
        <DropZone
          says="A Standard MIDI File, a CSV table, a WAV file or a Scala scale"
          endings={['.mid', '.midi', '.csv', '.txt', '.wav', '.scl', '.kbm']}
          onFile={(file) => void read(file)}
        />
        {reading && <Reading progress={progress} onCancel={cancel} />}
        {fault && <Alert severity="error">{`${fault} Nothing was changed.`}</Alert>}
        {opened?.is === 'midi' && (
          <MidiFields
            file={opened.file}
            onSteps={(track, scale) => finish(`Import ${opened.name}`, addSteps(patch, opened.file, track, scale))}
            onVoltages={(track, scale, controllers) =>
              finish(`Import ${opened.name}`, addVoltages(patch, opened.file, track, scale, controllers))
            }
          />
        )}
        {opened?.is === 'scale' && (
          <ScaleFields
            key={opened.name}
            {...opened}
            patch={patch}
            onUse={(at, scale) => finish(`Import ${opened.name}`, setScale(patch, at, opened.name, scale))}
          />
        )}
        {opened?.is === 'csv' && <CsvFields name={opened.name} table={opened.table} onUse={record} />}
        {opened?.is === 'wav' && (
          <TraceFields
            key={opened.name}
            traces={opened.traces}
            note={opened.traces.says}
            kind="wav"
            says="Full scale (1.0) ="
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

function Reading({ progress, onCancel }: { readonly progress: number | null; readonly onCancel: () => void }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
      <LinearProgress
        variant={progress === null ? 'indeterminate' : 'determinate'}
        value={100 * (progress ?? 0)}
        aria-label="Reading the file"
        sx={{ flex: 1 }}
      />
      {progress !== null && <Box component="span">{`${Math.round(100 * progress)}%`}</Box>}
      <Button aria-label="Cancel reading" onClick={onCancel}>
        Cancel
      </Button>
    </Box>
  );
}
