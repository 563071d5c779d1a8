import { freeId, kindNamed, rangeOfTrace, socketAt, EditSequence } from '@/core';
import type { Added, Edit, GesturePoint, ModuleDoc, Patch } from '@/core';
import { midiController, midiSteps, midiVoltages } from '@/core/formats/midi';
import type { MidiScale } from '@/core/formats/midi';
import type { MidiFile } from '@/core/formats/midiFile';
import type { QuantizerScale } from '@/core/formats/scala';

/** What a file becomes in a patch. */

export function addRecording(patch: Patch, name: string, assetId: string, volts: ArrayLike<number>): Added {
  const id = freeId(patch, 'recording');
  const params = { assetId, fileName: name.slice(0, 200), ...rangeOfTrace(volts) };
  const added: ModuleDoc = { id, kind: 'recording', label: name.slice(0, 80), params };
  return { edits: [{ do: 'add', module: added }], id };
}

/** Whether a module plays a scale. */
export const hasScale = ({ kind }: ModuleDoc): boolean =>
  Object.values(kindNamed(kind)?.params ?? {}).some((spec) => spec.type === 'scale');

/** A scale in a quantizer: one of the patch, by its id, or a new one where that is empty. */
export function setScale(patch: Patch, at: string, name: string, { scale, root }: QuantizerScale): Added {
  const params = { scale: [...scale], root };
  if (at !== '')
    return {
      edits: Object.entries(params).map(([param, value]): Edit => ({ do: 'set', module: at, param, value })),
      id: at,
    };
  const id = freeId(patch, 'quantizer');
  const added: ModuleDoc = { id, kind: 'quantizer', label: name.slice(0, 80), params };
  return { edits: [{ do: 'add', module: added }], id };
}

/** A track as a sequencer with a clock of its own. */
export function addSteps(patch: Patch, file: MidiFile, index: number, scale: MidiScale): Added | null {
  const track = file.tracks[index];
  const made = track && midiSteps(track, file.bpm, scale);
  if (!made) return null;
  const [clock, sequence] = [freeId(patch, 'clock'), freeId(patch, 'sequence')];
  const bpm = Math.round(file.bpm * 1000) / 1000;
  const edits: Edit[] = [
    {
      do: 'add',
      module: { id: clock, kind: 'clock', label: `${track.name} clock`, params: { bpm, beats: made.beats } },
    },
    {
      do: 'add',
      module: {
        id: sequence,
        kind: 'sequencer',
        label: track.name.slice(0, 80),
        params: { steps: made.steps, gateVolts: scale.gateVolts },
      },
    },
    { do: 'plug', cable: { from: socketAt(clock, 'out'), to: socketAt(sequence, 'clock') } },
  ];
  return { edits, id: sequence };
}

/** A track as held gestures: pitch, gate and velocity where it has notes, and one for each controller. */
export function addVoltages(
  patch: Patch,
  file: MidiFile,
  index: number,
  scale: MidiScale,
  controllers: readonly number[],
): Added | null {
  const track = file.tracks[index];
  if (!track) return null;
  const voices = track.notes.length > 0 ? Object.entries(midiVoltages(track, scale)) : [];
  const moved = controllers.map((n): [string, GesturePoint[]] => [`controller ${n}`, midiController(track, n, scale)]);
  const work = new EditSequence(patch);
  let first: string | null = null;
  for (const [what, points] of [...voices, ...moved]) {
    const id = freeId(work.patch, what.replace(/[^a-z0-9]/g, ''));
    const label = `${track.name} ${what}`.slice(0, 80);
    const added: ModuleDoc = { id, kind: 'gesture', label, params: { points, interpolation: 'hold' } };
    work.do({ do: 'add', module: added });
    first ??= id;
  }
  return first === null ? null : { edits: work.edits, id: first };
}
