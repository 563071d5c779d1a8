import { expose } from 'comlink';
import type { Result } from '../core';
import { packBundle, unpackBundle } from '../core/formats/bundle';
import { readMidi } from '../core/formats/midi';
import type { MidiFile } from '../core/formats/midi';
import { readTable } from '../core/formats/recording';
import { readWavTraces } from '../core/formats/wavFile';
import type { ImportsWorker } from './imports.protocol';

function midiOf(bytes: ArrayBuffer): Result<MidiFile, string> {
  try {
    return { ok: true, value: readMidi(bytes) };
  } catch {
    return { ok: false, errors: 'It is no Standard MIDI File that can be read.' };
  }
}

const worker: ImportsWorker = {
  midi: (bytes) => Promise.resolve(midiOf(bytes)),
  table: (text) => Promise.resolve(readTable(text)),
  wav: (bytes) => Promise.resolve(readWavTraces(new Uint8Array(bytes))),
  pack: (bundle) => Promise.resolve(packBundle(bundle)),
  unpack: (bytes) => Promise.resolve(unpackBundle(new Uint8Array(bytes))),
};

expose(worker);
