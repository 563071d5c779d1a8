import Papa from 'papaparse';
import { WaveFile } from 'wavefile';
import { ASSET } from '../document/types';
import type { Result } from '../document/types';

/** Traces as a file holds them, before anybody has said how many volts its numbers are. */
export interface FileTraces {
  readonly sampleRate: number;
  readonly columns: readonly { readonly name: string; readonly values: Float32Array }[];
}

const { seconds: LONGEST, leastRate, mostRate } = ASSET;
const RATES = { least: leastRate, most: mostRate } as const;

/**
 * Reads a table of numbers: a first column of rising times in seconds if there is one, else samples at `sampleRate`.
 * Times that are not even are brought onto an even grid by straight lines.
 *
 * @returns every column of numbers; or what is wrong, with its line.
 */
export function readCsvTraces(text: string, sampleRate: number): Result<FileTraces, string> {
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true });
  const [first] = data;
  if (!first || data.length < 2) return { ok: false, errors: 'The file holds no table of numbers.' };
  const headed = first.some((cell) => !isNumber(cell));
  const rows = headed ? data.slice(1) : data;
  const names = first.map((cell, i) => (headed && cell.trim() ? cell.trim() : `column ${i + 1}`));
  const values: number[][] = names.map(() => []);
  for (const [i, row] of rows.entries()) {
    for (const [c, column] of values.entries()) {
      const cell = row[c] ?? '';
      if (!isNumber(cell)) {
        const line = i + (headed ? 2 : 1);
        return { ok: false, errors: `Line ${line}, ${names[c]}: “${cell.slice(0, 40)}” is no number.` };
      }
      column.push(Number(cell));
    }
  }
  const [times] = values;
  const timed =
    values.length > 1 && times !== undefined && times.every((t, i) => i === 0 || t > (times[i - 1] as number));
  const columns = names.map((name, i) => ({ name, values: values[i] as number[] }));
  return timed ? evenly(times, columns.slice(1)) : cut({ sampleRate, columns: columns.map(toFloats) });
}

const isNumber = (cell: string): boolean => cell.trim() !== '' && Number.isFinite(Number(cell));
const toFloats = ({ name, values }: { name: string; values: readonly number[] }) => ({
  name,
  values: Float32Array.from(values),
});

function evenly(
  times: readonly number[],
  columns: readonly { name: string; values: readonly number[] }[],
): Result<FileTraces, string> {
  const steps = times.slice(1).map((t, i) => t - (times[i] as number));
  const middle = [...steps].sort((a, b) => a - b)[Math.floor(steps.length / 2)] as number;
  const rate = 1 / middle;
  if (rate < RATES.least || rate > RATES.most) {
    return {
      ok: false,
      errors: `Its times are ${middle} s apart; from ${1 / RATES.most} to ${1 / RATES.least} s can be read.`,
    };
  }
  const sampleRate = Math.abs(rate - Math.round(rate)) < 1e-3 * rate ? Math.round(rate) : rate;
  const begin = times[0] as number;
  const span = Math.min(LONGEST, (times.at(-1) as number) - begin);
  const count = Math.floor(span * sampleRate + 1e-6) + 1;
  let near = 0;
  const places = Array.from({ length: count }, (_, k) => {
    const t = begin + k / sampleRate;
    while (near < times.length - 2 && (times[near + 1] as number) <= t) near++;
    const [a, b] = [times[near] as number, times[near + 1] as number];
    return { near, share: Math.min(1, Math.max(0, (t - a) / (b - a))) };
  });
  const even = columns.map(({ name, values }) => ({
    name,
    values: Float32Array.from(places, ({ near: i, share }) => {
      const [a, b] = [values[i] as number, values[i + 1] as number];
      return a + share * (b - a);
    }),
  }));
  return cut({ sampleRate, columns: even });
}

function cut({ sampleRate, columns }: FileTraces): Result<FileTraces, string> {
  if (!(sampleRate >= RATES.least && sampleRate <= RATES.most))
    return {
      ok: false,
      errors: `A sample rate from ${RATES.least} to ${RATES.most} Hz can be read, not ${sampleRate}.`,
    };
  const most = Math.round(LONGEST * sampleRate);
  return {
    ok: true,
    value: { sampleRate, columns: columns.map((c) => ({ ...c, values: c.values.subarray(0, most) })) },
  };
}

/**
 * Reads a WAV file of any bit depth.
 *
 * @returns its channels, full scale as 1; or what is wrong.
 */
export function readWavTraces(bytes: Uint8Array): Result<FileTraces, string> {
  try {
    const file = new WaveFile(bytes);
    const { sampleRate, numChannels, bitsPerSample } = file.fmt as {
      sampleRate: number;
      numChannels: number;
      bitsPerSample: number;
    };
    const float = file.bitDepth === '32f' || file.bitDepth === '64';
    const full = float ? 1 : 2 ** (bitsPerSample - 1);
    const middle = bitsPerSample === 8 && !float ? 128 : 0;
    const samples = file.getSamples(false, Float64Array) as unknown as Float64Array | Float64Array[];
    const channels = numChannels === 1 ? [samples as Float64Array] : (samples as Float64Array[]);
    return cut({
      sampleRate,
      columns: channels.map((channel, i) => ({
        name: `channel ${i + 1}`,
        values: Float32Array.from(channel, (v) => (v - middle) / full),
      })),
    });
  } catch (error) {
    return {
      ok: false,
      errors: `It is no WAV file that can be read: ${error instanceof Error ? error.message : String(error)}`,
    };
  }
}
