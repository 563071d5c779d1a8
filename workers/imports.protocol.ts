import type { Result } from '../core';
import type { Bundle } from '../core/formats/bundle';
import type { MidiFile } from '../core/formats/midi';
import type { Table } from '../core/formats/recording';
import type { WavTraces } from '../core/formats/wavFile';

/** What the page asks of the imports' worker: files are read where they hold nothing up. */
export interface ImportsWorker {
  midi(bytes: ArrayBuffer): Promise<Result<MidiFile, string>>;
  table(text: string): Promise<Result<Table, string>>;
  wav(bytes: ArrayBuffer): Promise<Result<WavTraces, string>>;
  pack(bundle: Bundle): Promise<Uint8Array>;
  unpack(bytes: ArrayBuffer): Promise<Result<Bundle, string>>;
}
