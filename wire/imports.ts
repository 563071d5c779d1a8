import type { Result } from '../core';
import type { Bundle } from '../core/formats/bundle';
import type { MidiFile } from '../core/formats/midiFile';
import type { Table } from '../core/formats/recording';
import type { WavTraces } from '../core/formats/wavFile';

/**
 * What the page asks of the imports' worker: files are read where they hold nothing up. Beside its answers it says how
 * far it is, `{ progress }`, 0..1, where that can be known.
 */
export interface ImportsWorker {
  midi(file: Blob): Promise<Result<MidiFile, string>>;
  table(file: Blob): Promise<Result<Table, string>>;
  wav(file: Blob): Promise<Result<WavTraces, string>>;
  pack(bundle: Bundle): Promise<Uint8Array>;
  unpack(file: Blob): Promise<Result<Bundle, string>>;
}
