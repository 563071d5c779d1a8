import type { Result } from '@/core';
import type { FileTraces } from '@/core/formats/recording';
import { tableTraces } from '@/core/formats/recording';
import { importJob } from '@/ui/parts/workerJob';

/** The rate of a table without times, samples a second. */
const UNTIMED = 1000;

/** The traces of a WAV or CSV file. @throws Error that says what is wrong with it. */
export async function readRecording(file: File): Promise<FileTraces> {
  const wav = file.name.toLowerCase().endsWith('.wav');
  const read = await importJob(async (worker): Promise<Result<FileTraces, string>> => {
    if (wav) return worker.wav(file);
    const table = await worker.table(file);
    return table.ok ? tableTraces(table.value, table.value.times !== 'no', UNTIMED) : table;
  }).done;
  if (!read.ok) throw new Error(`${file.name}: ${read.errors}`);
  return read.value;
}
