import { expose, transfer } from 'comlink';
import type { Result } from '../core';
import { packBundle, unpackBundle } from '../core/formats/bundle';
import { readMidi } from '../core/formats/midiFile';
import type { MidiFile } from '../core/formats/midiFile';
import { readTable } from '../core/formats/recording';
import { readWavTraces } from '../core/formats/wavFile';
import type { ImportsWorker } from '../wire/imports';
import { progressTeller } from './tellProgress';

function midiOf(bytes: ArrayBuffer): Result<MidiFile, string> {
  try {
    return { ok: true, value: readMidi(bytes) };
  } catch {
    return { ok: false, errors: 'It is no Standard MIDI File that can be read.' };
  }
}

const tellProgress = progressTeller(100);

/** The answer with its samples handed over, not copied. */
const handed = <T>(answer: T, samples: readonly { readonly buffer: ArrayBufferLike }[]): T =>
  transfer(
    answer,
    samples.map((s) => s.buffer as ArrayBuffer),
  );

const worker: ImportsWorker = {
  midi: async (file) => midiOf(await file.arrayBuffer()),
  async table(file) {
    const table = readTable(await file.text(), tellProgress);
    return table.ok ? handed(table, table.value.columns) : table;
  },
  async wav(file) {
    const traces = readWavTraces(new Uint8Array(await file.arrayBuffer()), tellProgress);
    const samples = traces.ok ? traces.value.columns.map((c) => c.values) : [];
    return handed(traces, samples);
  },
  async pack(bundle) {
    const bytes = await Promise.resolve(packBundle(bundle));
    return handed(bytes, [bytes]);
  },
  unpack: async (file) => unpackBundle(new Uint8Array(await file.arrayBuffer())),
};

expose(worker);
