import fc from 'fast-check';
import { Midi } from '@tonejs/midi';
import { describe, expect, it } from 'vitest';
import { equalTuning } from './keyTuning';
import { midiVoltages } from './midi';
import { readMidi } from './midiFile';
import { midiFileOf } from './midiOut';

/** Notes one after another, each number let go before it is struck again. */
const played = fc
  .array(
    fc.record({
      note: fc.integer({ min: 0, max: 127 }),
      rest: fc.double({ min: 0.002, max: 1, noNaN: true }),
      held: fc.double({ min: 0.002, max: 2, noNaN: true }),
      velocity: fc.integer({ min: 1, max: 127 }),
    }),
    { minLength: 1, maxLength: 40 },
  )
  .map((all) => {
    let t = 0;
    return all.map(({ note, rest, held, velocity }) => {
      const from = t + rest;
      t = from + held;
      return { note, from, to: t, velocity: velocity / 127 };
    });
  });

describe('a MIDI file of played keys', () => {
  it('is read again as it was played, to half a tick', () => {
    fc.assert(
      fc.property(played, fc.integer({ min: 20, max: 400 }), (notes, bpm) => {
        const { tracks, bpm: read } = readMidi(midiFileOf('Keys', notes, bpm).buffer);
        const tick = 60 / bpm / 960;
        expect(read).toBeCloseTo(bpm, 2);
        const off = tracks[0]!.notes.map((n, i) =>
          Math.max(
            Math.abs(n.from - notes[i]!.from) / tick,
            Math.abs(n.to - notes[i]!.to) / tick,
            n.note === notes[i]!.note ? 0 : 99,
            Math.abs(n.velocity - notes[i]!.velocity) > 1e-9 ? 99 : 0,
          ),
        );
        expect(off).toHaveLength(notes.length);
        expect(Math.max(...off)).toBeLessThan(1.01);
      }),
      { numRuns: 200 },
    );
  });

  it('is read by another reader too, and strikes a key again at once', () => {
    const notes = [0, 0.5, 1].map((from) => ({ note: 60, from, to: from + 0.5, velocity: 1 }));
    const midi = new Midi(midiFileOf('Again', notes, 120));
    expect(midi.tracks[0]!.name).toBe('Again');
    expect(midi.tracks[0]!.notes.map((n) => [n.midi, n.time, n.duration])).toEqual(
      notes.map((n) => [60, expect.closeTo(n.from, 3), expect.closeTo(0.5, 3)]),
    );
  });

  it('carries its tuning, which its voltages follow', () => {
    const notes = [{ note: 64, from: 0, to: 0.5, velocity: 1 }];
    const just = { name: 'Just', notes: equalTuning.notes.map((_, k) => (k % 12 === 4 ? k - 0.13686 : k)) };
    const plain = readMidi(midiFileOf('Keys', notes, 120).buffer);
    const tuned = readMidi(midiFileOf('Keys', notes, 120, just).buffer);
    expect(plain.tuning).toBeNull();
    expect(tuned.tuning?.name).toBe('Just');
    const scale = { zeroNote: 60, gateVolts: 5, fullVolts: 5, tuning: tuned.tuning };
    expect(midiVoltages(tuned.tracks[0]!, scale).pitch[0]!.volts).toBeCloseTo((4 - 0.13686) / 12, 5);
    expect(midiVoltages(plain.tracks[0]!, { ...scale, tuning: plain.tuning }).pitch[0]!.volts).toBeCloseTo(4 / 12, 5);
  });
});
