import { Midi } from '@tonejs/midi';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WaveFile } from 'wavefile';
import { midiController, midiCutAt, midiSteps, midiVoltages } from './midi';
import { readMidi } from './midiFile';
import type { MidiScale } from './midi';
import { zipSync } from 'fflate';
import { BUNDLE, packBundle, unpackBundle } from './bundle';
import { readCsvTraces, readTable, tableTraces } from './recording';
import { readWavTraces, voltsToWav } from './wavFile';
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
  it('is read as another reader reads it, through changes of tempo', () => {
    const event = fc.record({
      midi: fc.integer({ min: 0, max: 127 }),
      ticks: fc.nat(5000),
      durationTicks: fc.integer({ min: 1, max: 900 }),
      velocity: fc.integer({ min: 1, max: 127 }).map((v) => v / 127),
    });
    const tempo = fc.record({ ticks: fc.nat(4000), bpm: fc.integer({ min: 30, max: 300 }) });
    fc.assert(
      fc.property(
        fc.array(event, { maxLength: 40 }),
        fc.uniqueArray(tempo, { maxLength: 5, selector: (x) => x.ticks }),
        (events, tempos) => {
          const midi = new Midi();
          const first = { ticks: 0, bpm: 90 };
          midi.header.tempos = [first, ...tempos.filter((t) => t.ticks > 0)].sort((a, b) => a.ticks - b.ticks);
          const track = midi.addTrack();
          // Notes of one number that overlap are matched by each reader in its own way.
          const free = new Map<number, number>();
          for (const e of events.sort((a, b) => a.ticks - b.ticks)) {
            if ((free.get(e.midi) ?? -1) >= e.ticks) continue;
            free.set(e.midi, e.ticks + e.durationTicks);
            track.addNote(e);
            track.addCC({ number: 7, value: e.velocity, ticks: e.ticks });
          }
          const bytes = midi.toArray().slice().buffer;
          const [mine, other] = [readMidi(bytes).tracks[0], new Midi(bytes).tracks[0]];
          const notes = (other?.notes ?? []).toSorted((a, b) => a.ticks - b.ticks || a.midi - b.midi);
          const ours = (mine?.notes ?? []).toSorted((a, b) => a.from - b.from || a.note - b.note);
          expect(ours.map((n) => n.note)).toEqual(notes.map((n) => n.midi));
          ours.forEach((n, i) => {
            expect(n.from).toBeCloseTo(notes[i]!.time, 6);
            expect(n.to).toBeCloseTo(notes[i]!.time + notes[i]!.duration, 6);
            expect(n.velocity).toBeCloseTo(notes[i]!.velocity, 6);
          });
          expect(mine?.controllers.get(7)?.length ?? 0).toBe(other?.controlChanges[7]?.length ?? 0);
        },
      ),
    );
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
      errors: 'Line 3, volts: “much” is not a number.',
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

describe('WAV files of every kind', () => {
  const samples = [0, 0.5, -0.25, 0.9];
  const made = (depth: string): Uint8Array => {
    const file = new WaveFile();
    file.fromScratch(1, 8000, '32f', samples);
    if (depth !== '32f') file.toBitDepth(depth === '8a' || depth === '8m' ? '16' : depth);
    if (depth === '8a') file.toALaw();
    if (depth === '8m') file.toMuLaw();
    return file.toBuffer();
  };
  it.each([
    ['8', 0.01],
    ['16', 1e-4],
    ['24', 1e-6],
    ['32', 1e-6],
    ['32f', 1e-7],
    ['64', 1e-7],
    ['8a', 0.03],
    ['8m', 0.03],
  ])('%s', (depth, slack) => {
    const read = readWavTraces(made(depth));
    const values = read.ok ? [...read.value.columns[0]!.values] : [];
    expect(values.map((v, i) => Math.abs(v - samples[i]!) < slack)).toEqual([true, true, true, true]);
  });
  it('extensible float is float', () => {
    const plain = made('32f');
    const at = plain.findIndex((_, i) => String.fromCharCode(...plain.slice(i, i + 4)) === 'fmt ');
    const size = new DataView(plain.buffer, plain.byteOffset).getUint32(at + 4, true);
    const long = new Uint8Array(plain.length - size + 40);
    long.set(plain.subarray(0, at + 8 + 16));
    long.set(plain.subarray(at + 8 + size), at + 8 + 40);
    const view = new DataView(long.buffer);
    view.setUint32(at + 4, 40, true);
    view.setUint16(at + 8, 0xfffe, true);
    view.setUint16(at + 8 + 16, 22, true);
    view.setUint16(at + 8 + 24, 3, true);
    const read = readWavTraces(long);
    expect(read.ok && [...read.value.columns[0]!.values].map((v) => Math.round(v * 1000))).toEqual([0, 500, -250, 900]);
  });
  it('what is not read is refused by its name, and one that ends early says so', () => {
    const other = made('16');
    const at = other.findIndex((_, i) => String.fromCharCode(...other.slice(i, i + 4)) === 'fmt ');
    new DataView(other.buffer, other.byteOffset).setUint16(at + 8, 0x55, true);
    expect(readWavTraces(other)).toMatchObject({ ok: false, errors: expect.stringContaining('MP3') as string });
    const whole = voltsToWav(new Float32Array(8000), 8000);
    const read = readWavTraces(whole.subarray(0, 44 + 4 * 2000));
    expect(read.ok && read.value.says).toBe('The file is truncated: the header says 1.00 s, but it ends at 0.250 s.');
    expect(readWavTraces(Uint8Array.of(1, 2, 3))).toMatchObject({ ok: false });
  });
});

describe('a patch with its recordings', () => {
  it('comes back whole, to the bit', () => {
    const volts = Float32Array.from({ length: 5000 }, (_, i) => 7 * Math.sin(i / 9));
    const document = { format: 'fenvo.patch', version: 1, name: 'Tape' };
    const recordings = [{ id: 'abc123', name: 'hull', sampleRate: 44_100.5, volts }];
    for (const documents of [[document], [document, { ...document, name: 'other' }]])
      expect(unpackBundle(packBundle({ documents, recordings }))).toEqual({
        ok: true,
        value: { documents, recordings },
      });
  });
  it('is refused before anything is unpacked where it is packed far too small, or holds too many files', () => {
    const bomb = zipSync({ 'patch.fenvo.json': new Uint8Array(60_000_000) }, { level: 9 });
    expect(bomb.length).toBeLessThan(200_000);
    expect(unpackBundle(bomb)).toMatchObject({
      ok: false,
      errors: expect.stringMatching(/would unpack to 60 MB/) as string,
    });
    const many = zipSync(
      Object.fromEntries(Array.from({ length: BUNDLE.entries + 1 }, (_, i) => [`a${i}`, new Uint8Array(1)])),
    );
    expect(unpackBundle(many)).toMatchObject({ ok: false, errors: `It holds more than ${BUNDLE.entries} files.` });
  });
  it('names what is missing', () => {
    expect(unpackBundle(Uint8Array.of(80, 75, 3, 4))).toMatchObject({ ok: false });
  });
});

describe('a table', () => {
  it('is unsure of its first column where that only rises and nothing says that it is time', () => {
    expect(readTable('1,5\n2,6\n3,7')).toMatchObject({ ok: true, value: { times: 'unsure' } });
    expect(readTable('time_s,a\n0,5\n1,6')).toMatchObject({ ok: true, value: { times: 'yes' } });
    expect(readTable('a,b\n3,5\n1,6')).toMatchObject({ ok: true, value: { times: 'no' } });
  });
  it('of uneven times is not spread without end', () => {
    const rows = ['time,a', ...Array.from({ length: 50 }, (_, i) => `${i * 1e-5},1`), '100,2'];
    const table = readTable(rows.join('\n'));
    expect(table.ok && tableTraces(table.value, true, 1000)).toMatchObject({
      ok: false,
      errors: expect.stringContaining('uneven') as string,
    });
  });
});

describe('a long MIDI file', () => {
  it('says from when on it is cut', () => {
    const notes = Array.from({ length: 30_000 }, (_, i) => ({
      note: 40 + (i % 30),
      from: i * 0.01,
      to: i * 0.01 + 0.005,
      velocity: 0.5,
    }));
    const track = { name: 'x', notes, noteCount: notes.length, controllers: new Map() };
    expect(midiCutAt(track, scale, [])).toBeCloseTo(50, 0);
    expect(midiCutAt({ ...track, notes: notes.slice(0, 100), noteCount: 100 }, scale, [])).toBeNull();
    expect(midiSteps(track, 120, scale)).toBeNull();
  });
  it('is kept to what a gesture could use, and says how much it held', () => {
    const [track] = readMidi(
      song((t) => {
        for (let i = 0; i < 20_100; i++) t.addNote({ midi: 60, ticks: i * 10, durationTicks: 10 });
      }),
    ).tracks;
    expect([track?.noteCount, track?.notes.length]).toEqual([20_100, 20_000]);
    expect(midiCutAt(track!, scale, [])).toBeGreaterThan(0);
  });
});
