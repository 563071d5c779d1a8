import type { Result } from '@/core';
import { readKbm, readScl } from '@/core/formats/scala';
import type { KeyboardMap, ScalaScale } from '@/core/formats/scala';
import type { MidiFile } from '@/core/formats/midiFile';
import type { Table } from '@/core/formats/recording';
import type { WavTraces } from '@/core/formats/wavFile';
import { importJob } from '@/ui/parts/workerJob';
import type { Job } from '@/ui/parts/workerJob';

export type Opened =
  | { readonly is: 'midi'; readonly name: string; readonly file: MidiFile }
  | { readonly is: 'csv'; readonly name: string; readonly table: Table }
  | { readonly is: 'wav'; readonly name: string; readonly traces: WavTraces }
  | { readonly is: 'scale'; readonly name: string; readonly scale: ScalaScale; readonly map: KeyboardMap | null }
  | { readonly is: 'map'; readonly name: string; readonly map: KeyboardMap };

const LARGEST = 200_000_000;

type Read = Result<Opened, string>;

function named<T>(file: File, read: Result<T, string>, open: (value: T) => Opened): Read {
  return read.ok ? { ok: true, value: open(read.value) } : { ok: false, errors: `${file.name}: ${read.errors}` };
}

/** Reads a file by what its name says it is, beside the page; says how far it is, 0..1, where that can be known. */
export function openFile(file: File, onProgress: (progress: number) => void): Job<Read> {
  const name = file.name.replace(/\.[^.]+$/, '').slice(0, 60) || 'recording';
  const ending = /\.([a-z]+)$/i.exec(file.name)?.[1]?.toLowerCase() ?? '';
  return importJob(async (worker): Promise<Read> => {
    if (file.size > LARGEST) return { ok: false, errors: `${file.name} is larger than ${LARGEST / 1e6} MB.` };
    if (ending === 'mid' || ending === 'midi')
      return named(file, await worker.midi(file), (x) => ({ is: 'midi', name, file: x }));
    if (ending === 'wav') return named(file, await worker.wav(file), (x) => ({ is: 'wav', name, traces: x }));
    if (ending === 'csv' || ending === 'txt')
      return named(file, await worker.table(file), (x) => ({ is: 'csv', name, table: x }));
    if (ending === 'scl')
      return named(file, readScl(await file.text()), (scale) => ({ is: 'scale', name, scale, map: null }));
    if (ending === 'kbm') return named(file, readKbm(await file.text()), (map) => ({ is: 'map', name, map }));
    return { ok: false, errors: `${file.name}: unsupported file type. Use .mid, .csv, .wav, .scl or .kbm.` };
  }, onProgress);
}
