import type { Result } from '@/core';
import { readMidi } from '@/core/formats/midi';
import type { MidiFile } from '@/core/formats/midi';
import { readWavTraces } from '@/core/formats/recording';
import type { FileTraces } from '@/core/formats/recording';

export type Opened =
  | { readonly is: 'midi'; readonly name: string; readonly file: MidiFile }
  | { readonly is: 'csv'; readonly name: string; readonly text: string }
  | { readonly is: 'wav'; readonly name: string; readonly traces: FileTraces };

const LARGEST = 200_000_000;

/** Reads a file by what its name says it is. */
export async function openFile(file: File): Promise<Result<Opened, string>> {
  const name = file.name.replace(/\.[^.]+$/, '').slice(0, 60) || 'recording';
  const ending = /\.([a-z]+)$/i.exec(file.name)?.[1]?.toLowerCase() ?? '';
  if (file.size > LARGEST) return { ok: false, errors: `${file.name} is larger than ${LARGEST / 1e6} MB.` };
  if (ending === 'mid' || ending === 'midi') {
    try {
      return { ok: true, value: { is: 'midi', name, file: readMidi(await file.arrayBuffer()) } };
    } catch {
      return { ok: false, errors: `${file.name} is no Standard MIDI File that can be read.` };
    }
  }
  if (ending === 'wav') {
    const read = readWavTraces(new Uint8Array(await file.arrayBuffer()));
    return read.ok
      ? { ok: true, value: { is: 'wav', name, traces: read.value } }
      : { ok: false, errors: `${file.name}: ${read.errors}` };
  }
  if (ending === 'csv' || ending === 'txt') return { ok: true, value: { is: 'csv', name, text: await file.text() } };
  return { ok: false, errors: `${file.name} ends in neither .mid, .csv nor .wav.` };
}
