'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useMemo, useState } from 'react';
import { midiCutAt, midiSteps } from '@/core/formats/midi';
import type { MidiScale } from '@/core/formats/midi';
import type { MidiFile } from '@/core/formats/midiFile';
import { SelectField } from '@/ui/parts/SelectField';
import { ink } from '@/ui/theme/tokens';
import { SettingRow } from '../stage/SettingRow';
import { numberOf, useKept } from './kept';
import { NumberRow } from './NumberRow';

interface Props {
  readonly file: MidiFile;
  readonly onSteps: (track: number, scale: MidiScale) => void;
  readonly onVoltages: (track: number, scale: MidiScale, controllers: readonly number[]) => void;
}

/** What a track of a MIDI file becomes. */
export function MidiFields({ file, onSteps, onVoltages }: Props) {
  const [index, setIndex] = useState(0);
  const [zero, setZero] = useKept('midi zero', '60');
  const [gate, setGate] = useKept('midi gate', '5');
  const [full, setFull] = useKept('midi full', '5');
  const track = file.tracks[index];
  const [zeroNote, gateVolts, fullVolts] = [numberOf(zero), numberOf(gate), numberOf(full)];
  const [tuned, setTuned] = useState(true);
  const tuning = tuned ? file.tuning : null;
  const scale = useMemo(
    () =>
      zeroNote === null || gateVolts === null || fullVolts === null ? null : { zeroNote, gateVolts, fullVolts, tuning },
    [zeroNote, gateVolts, fullVolts, tuning],
  );
  const controllers = useMemo(() => [...(track?.controllers.keys() ?? [])], [track]);
  const steps = useMemo(() => (scale && track ? midiSteps(track, file.bpm, scale) : null), [file, track, scale]);
  const cutAt = useMemo(
    () => (scale && track ? midiCutAt(track, scale, controllers) : null),
    [track, scale, controllers],
  );
  if (!track) return <Box>No notes or controllers in this file.</Box>;
  const names = file.tracks.map(
    (t, i) => [String(i), `${t.name}: ${t.noteCount} notes, ${t.controllers.size} controllers`] as const,
  );
  const moved = controllers.length > 0 ? `, with controller ${controllers.join(', ')}` : '';
  return (
    <>
      <SettingRow label="Track">
        <SelectField
          label="Track"
          value={String(index)}
          options={names}
          onChange={(i) => setIndex(Number(i))}
          sx={{ maxWidth: 320 }}
        />
      </SettingRow>
      <NumberRow label="Note at 0 V (60 = C4)" unit="" value={zero} onChange={setZero} />
      <NumberRow label="Gate level" unit="V" value={gate} onChange={setGate} />
      <NumberRow label="Full-scale velocity and CC" unit="V" value={full} onChange={setFull} />
      {file.tuning && (
        <FormControlLabel
          control={<Checkbox checked={tuned} onChange={(_, on) => setTuned(on)} />}
          label={`Use the file’s tuning, ${file.tuning.name}`}
        />
      )}
      <Box sx={{ display: 'flex', gap: 1, my: 1.5, flexWrap: 'wrap' }}>
        <Button color="primary" disabled={!steps || !scale} onClick={() => scale && onSteps(index, scale)}>
          Import as sequencer
        </Button>
        <Button disabled={!scale} onClick={() => scale && onVoltages(index, scale, controllers)}>
          {`Import as gestures${moved}`}
        </Button>
      </Box>
      {cutAt !== null && (
        <Alert severity="info" role="status">
          {`A gesture holds up to 10,000 changes, so it will be cut at ${cutAt.toPrecision(3)} s.`}
        </Alert>
      )}
      {scale && !steps && track.notes.length > 0 && (
        <Box sx={{ color: ink.softInk, mt: 1 }}>
          The notes don’t fit an even grid, or need more than 64 steps, so they can only be imported as gestures.
        </Box>
      )}
    </>
  );
}
