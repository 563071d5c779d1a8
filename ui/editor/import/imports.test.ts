import { describe, expect, it } from 'vitest';
import { applyEdits, blank, parsePatch, predict, printPatch, simulate } from '@/core';
import type { Added, GesturePoint, Patch } from '@/core';
import type { MidiFile, MidiTrack } from '@/core/formats/midiFile';
import { quantizerScale, readScl } from '@/core/formats/scala';
import { addRecording, addSteps, addVoltages, hasScale, setScale } from './imports';

const scale = { zeroNote: 60, gateVolts: 5, fullVolts: 10 };
const note = (n: number, from: number, to: number, velocity = 1) => ({ note: n, from, to, velocity });
const track = (notes: MidiTrack['notes'], controllers: MidiTrack['controllers'] = new Map()): MidiTrack =>
  ({ name: 'Buoy', notes, noteCount: notes.length, controllers }) as MidiTrack;
const file = (...tracks: MidiTrack[]): MidiFile => ({ bpm: 120, tracks, tuning: null });
/** Four quarter notes, of which the third is a rest. */
const four = track([note(60, 0, 0.25), note(72, 0.5, 0.75), note(55, 1.5, 1.75)]);

/** The patch with what was added, as a document that can be read. */
function kept(added: Added | null, patch: Patch = blank): Patch {
  if (!added) throw new Error('nothing was added');
  const read = parsePatch(JSON.parse(JSON.stringify(printPatch(applyEdits(patch, added.edits)))));
  if (!read.ok) throw new Error(read.errors.map((e) => `${e.path}: ${e.message}`).join());
  return read.value;
}
const pointsOf = (patch: Patch, id: string): readonly GesturePoint[] =>
  patch.modules.find((m) => m.id === id)!.params!.points as readonly GesturePoint[];

describe('a track as a sequence', () => {
  it('plays its notes’ voltages in time, on a clock of its own', () => {
    const added = addSteps(blank, file(four), 0, scale);
    const patch = kept(added);
    expect(patch.modules.map((m) => m.kind)).toEqual(['clock', 'sequencer']);
    const { traces, sampleRate } = simulate(
      { ...patch, settings: { ...patch.settings, duration: 2 } },
      { traces: [`${added!.id}.cv`, `${added!.id}.gate`] },
    );
    const at = (socket: string, seconds: number) => traces.get(`${added!.id}.${socket}`)![seconds * sampleRate]!;
    expect([0.1, 0.6, 1.6].map((t) => at('cv', t))).toEqual([0, 1, -5 / 12].map((v) => expect.closeTo(v, 6)));
    expect([0.1, 0.6, 1.1, 1.6].map((t) => at('gate', t))).toEqual([5, 5, 0, 5]);
  });
  it('is added beside one that is there, and not where there is none', () => {
    const once = kept(addSteps(blank, file(four), 0, scale));
    const twice = kept(addSteps(once, file(four), 0, scale), once);
    expect(new Set(twice.modules.map((m) => m.id)).size).toBe(4);
    expect(twice.cables).toHaveLength(2);
    expect(addSteps(blank, file(four), 3, scale)).toBeNull();
  });
});

describe('a track as voltages over time', () => {
  it('holds pitch, gate and velocity, each from 0 s on', () => {
    const patch = kept(addVoltages(blank, file(four), 0, scale, []));
    expect(patch.modules.map((m) => m.label)).toEqual(['Buoy pitch', 'Buoy gate', 'Buoy velocity']);
    expect(pointsOf(patch, 'pitch').map((p) => [p.t, p.volts])).toEqual([
      [0, 0],
      [0.5, 1],
      [1.5, expect.closeTo(-5 / 12, 9)],
    ]);
    expect(pointsOf(patch, 'gate').filter((p) => p.volts > 0)).toHaveLength(3);
    for (const m of patch.modules) expect(m.params).toMatchObject({ interpolation: 'hold' });
  });
  it('has a module for each controller that was chosen, and nothing where there is nothing', () => {
    // What a wheel says first is where it stood before.
    const moves = [
      { t: 0.2, value: 0.5 },
      { t: 0.6, value: 1 },
    ];
    const wheel = track([], new Map([[1, moves]]));
    const patch = kept(addVoltages(blank, file(wheel), 0, scale, [1]));
    expect(patch.modules.map((m) => m.label)).toEqual(['Buoy controller 1']);
    expect(pointsOf(patch, 'controller1')).toEqual([
      { t: 0, volts: 5 },
      { t: 0.6, volts: 10 },
    ]);
    expect(addVoltages(blank, file(track([])), 0, scale, [])).toBeNull();
    expect(addVoltages(blank, file(), 0, scale, [])).toBeNull();
  });
});

describe('a recording', () => {
  it('plays what was stored, under the file’s name, however long that is', () => {
    const patch = kept(addRecording(blank, 'x'.repeat(200), 'a1', [-2.9996, 0, 3]));
    expect(patch.modules[0]).toMatchObject({
      kind: 'recording',
      params: { assetId: 'a1', fileName: 'x'.repeat(200), lowVolts: -3, highVolts: 3 },
    });
    // Of ±3 V nothing beyond ±3 V can ever arrive.
    expect(predict(patch, { simulation: false }).outputs[`${patch.modules[0]!.id}.out`]!.bound).toEqual([-3, 3]);
    expect(patch.modules[0]!.label).toHaveLength(80);
  });
});

describe('a scale', () => {
  it('comes into a new quantizer, or into one that is there, whose voltages are its notes', () => {
    const read = readScl(['Thirds', '2', '5/4', '2/1'].join('\n'));
    const made = read.ok ? quantizerScale(read.value, null) : null;
    if (!made?.ok) throw new Error('no scale');
    const third = Math.log2(5 / 4);
    const added = setScale(blank, '', 'Thirds', made.value);
    const patch = kept(added);
    expect(patch.modules.filter(hasScale).map((m) => m.label)).toEqual(['Thirds']);
    const tuned: Patch = {
      ...patch,
      modules: [
        ...patch.modules,
        { id: 'in', kind: 'constant', params: { volts: 0.3, lowVolts: 0.3, highVolts: 0.3 } },
      ],
      cables: [{ from: 'in.out', to: `${added.id}.in` }],
    };
    expect(predict(tuned).outputs[`${added.id}.out`]!.arrives[0]).toBeCloseTo(third, 6);
    const again = kept(setScale(patch, added.id, 'Thirds', { ...made.value, root: 7 }), patch);
    expect(again.modules).toHaveLength(1);
    expect(again.modules[0]!.params!.root).toBe(7);
  });
});
