import { Midi } from '@tonejs/midi';
import { describe, expect, it } from 'vitest';
import { WaveFile } from 'wavefile';
import { midiController, midiSteps, midiVoltages, readMidi } from './midi';
import type { MidiScale } from './midi';
import { readCsvTraces, readWavTraces } from './recording';
import { tracesToCsv } from './csv';
import { tracesToWav } from './wav';

const scale: MidiScale = { zeroNote: 60, gateVolts: 5, fullVolts: 8 };

function song(write: (track: ReturnType<Midi['addTrack']>) => void): ArrayBuffer {
  const midi = new Midi();
  midi.header.setTempo(120);
  write(midi.addTrack());
  return midi.toArray().buffer as ArrayBuffer;
}

describe('a Standard MIDI File', () => {
  const bytes = song((track) => {
    track.name = 'Bell';
    track.addNote({ midi: 60, time: 0, duration: 0.5, velocity: 1 });
    track.addNote({ midi: 72, time: 0.5, duration: 1, velocity: 0.5 });
    track.addNote({ midi: 48, time: 2, duration: 0.25, velocity: 1 });
    track.addCC({ number: 1, value: 0, time: 0 });
    track.addCC({ number: 1, value: 1, time: 1 });
  });
  const file = readMidi(bytes);
  const [track] = file.tracks;

  it('gives pitch at 1 V an octave, velocity and gate as held voltages', () => {
    expect(file.bpm).toBeCloseTo(120, 6);
    const { pitch, gate, velocity } = midiVoltages(track!, scale);
    expect(pitch).toEqual([
      { t: 0, volts: 0 },
      { t: 0.5, volts: 1 },
      { t: 2, volts: -1 },
    ]);
    expect(gate.map((p) => p.volts)).toEqual([5, 0, 5, 0, 5, 0]);
    expect(gate[1]!.t).toBeCloseTo(0.498, 6);
    expect(gate.at(-1)!.t).toBeCloseTo(2.25, 2);
    expect(velocity[1]!.volts).toBeCloseTo(4, 1);
  });
  it('gives a controller as a gesture', () => {
    expect(midiController(track!, 1, scale)).toEqual([
      { t: 0, volts: 0 },
      { t: 1, volts: 8 },
    ]);
  });
  it('gives steps on the coarsest clock that fits, with ties and rests', () => {
    expect(midiSteps(track!, file.bpm, scale)).toEqual({
      beats: 1,
      steps: [
        { volts: 0, gate: true, tie: false },
        { volts: 1, gate: true, tie: true },
        { volts: 1, gate: true, tie: false },
        { volts: 1, gate: false, tie: false },
        { volts: -1, gate: true, tie: false },
      ],
    });
  });
  it('gives no steps where notes lie on no grid', () => {
    const free = readMidi(
      song((t) => [0, 0.37, 0.71, 1.13].forEach((time) => t.addNote({ midi: 60, time, duration: 0.05 }))),
    );
    expect(midiSteps(free.tracks[0]!, free.bpm, scale)).toBeNull();
  });
  it('slurs notes that overlap', () => {
    const slurred = readMidi(
      song((t) => {
        t.addNote({ midi: 60, time: 0, duration: 0.8 });
        t.addNote({ midi: 62, time: 0.5, duration: 0.5 });
      }),
    );
    expect(midiVoltages(slurred.tracks[0]!, scale).gate.map((p) => p.volts)).toEqual([5, 0]);
  });
  it('is refused where it is none', () => {
    expect(() => readMidi(new TextEncoder().encode('not a file').buffer as ArrayBuffer)).toThrow();
  });
});

describe('traces from a table', () => {
  it('come back as they went out', () => {
    const out = [
      ...tracesToCsv(
        new Map([
          ['a.out', [0, 1, 2, 3]],
          ['b.out', [5, 5, 4, 4]],
        ]),
        1000,
      ),
    ].join('');
    const back = readCsvTraces(out, 8000);
    expect(back).toEqual({
      ok: true,
      value: {
        sampleRate: 1000,
        columns: [
          { name: 'a.out', values: Float32Array.of(0, 1, 2, 3) },
          { name: 'b.out', values: Float32Array.of(5, 5, 4, 4) },
        ],
      },
    });
  });
  it('are brought onto an even grid', () => {
    const read = readCsvTraces('0,0\n0.1,1\n0.2,2\n0.4,4\n0.5,5\n', 8000);
    expect(read.ok && read.value.sampleRate).toBe(10);
    expect(read.ok && [...read.value.columns[0]!.values].map((v) => Math.round(v * 1e4) / 1e4)).toEqual([
      0, 1, 2, 3, 4, 5,
    ]);
  });
  it('without times take the rate that is told', () => {
    const read = readCsvTraces('volts\n1\n0\n1\n', 50);
    expect(read.ok && [read.value.sampleRate, read.value.columns[0]!.values.length]).toEqual([50, 3]);
  });
  it('name the line and the column of what is no number', () => {
    expect(readCsvTraces('t,volts\n0,1\n1,much\n', 50)).toEqual({
      ok: false,
      errors: 'Line 3, volts: “much” is no number.',
    });
    expect(readCsvTraces('', 50).ok).toBe(false);
  });
});

describe('traces from a WAV file', () => {
  it('come back from the file that Fenvo itself writes, divided by 10', () => {
    const read = readWavTraces(tracesToWav([[0, 5, -10]], 8000));
    expect(read.ok && [...read.value.columns[0]!.values]).toEqual([0, 0.5, -1]);
  });
  it('are full scale at 1 in 8, 16 and 24 bits', () => {
    for (const [depth, full] of [
      ['16', 32_767],
      ['24', 8_388_607],
    ] as const) {
      const file = new WaveFile();
      file.fromScratch(2, 44_100, depth, [
        [0, full],
        [0, -full],
      ]);
      const read = readWavTraces(file.toBuffer());
      expect(read.ok && read.value.columns.map((c) => c.values[1]!.toFixed(3))).toEqual(['1.000', '-1.000']);
    }
    const eight = new WaveFile();
    eight.fromScratch(1, 8000, '8', [128, 255, 0]);
    const read = readWavTraces(eight.toBuffer());
    expect(read.ok && [...read.value.columns[0]!.values].map((v) => v.toFixed(2))).toEqual(['0.00', '0.99', '-1.00']);
  });
  it('are refused where there are none', () => {
    expect(readWavTraces(new Uint8Array(8)).ok).toBe(false);
  });
});
