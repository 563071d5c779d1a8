import Papa from 'papaparse';
import { ASSET } from '../document/types';
import type { Result } from '../document/types';

/** Traces as a file holds them, before anybody has said how many volts its numbers are. */
export interface FileTraces {
  readonly sampleRate: number;
  readonly columns: readonly { readonly name: string; readonly values: Float32Array }[];
}

const { seconds: LONGEST, leastRate, mostRate } = ASSET;
const RATES = { least: leastRate, most: mostRate } as const;

/** A table of numbers, as text gives it. */
export interface Table {
  readonly names: readonly string[];
  readonly columns: readonly Float64Array[];
  /** Whether the first column is time in seconds: its name says so; it only rises, so it may be; or it is not. */
  readonly times: 'yes' | 'unsure' | 'no';
}

/** Names that say that a column is time. */
const TIME_NAME = /^(t|time|seconds?|sec|s)$|time|\[s\]|_s$|\(s\)/i;

/** The cells of a table's text, line by line. */
function cellsOf(text: string, progress: (share: number) => void): string[][] {
  const data: string[][] = [];
  Papa.parse<string[]>(text, {
    skipEmptyLines: true,
    step(row) {
      data.push(row.data);
      if (data.length % 4096 === 0) progress(row.meta.cursor / text.length);
    },
  });
  return data;
}

/**
 * Reads a table of numbers with comma, semicolon or tab, with or without a header.
 *
 * @param progress called now and then with the progress, 0..1.
 * @returns every column of numbers; or what is wrong, with its line.
 */
export function readTable(text: string, progress: (share: number) => void = () => undefined): Result<Table, string> {
  const data = cellsOf(text.trim(), progress);
  const [first] = data;
  if (!first || data.length < 2) return { ok: false, errors: 'No numeric table found in this file.' };
  const headed = first.some((cell) => !isNumber(cell));
  const rows = headed ? data.slice(1) : data;
  const names = first.map((cell, i) => (headed && cell.trim() ? cell.trim() : `column ${i + 1}`));
  const columns = names.map(() => new Float64Array(rows.length));
  for (const [i, row] of rows.entries()) {
    for (const [c, column] of columns.entries()) {
      const cell = row[c] ?? '';
      if (!isNumber(cell)) {
        const line = i + (headed ? 2 : 1);
        return { ok: false, errors: `Line ${line}, ${names[c]}: “${cell.slice(0, 40)}” is not a number.` };
      }
      column[i] = Number(cell);
    }
  }
  const [times] = columns;
  const rises =
    columns.length > 1 && times !== undefined && times.every((t, i) => i === 0 || t > (times[i - 1] as number));
  const sure = headed && TIME_NAME.test(names[0] ?? '');
  return { ok: true, value: { names, columns, times: !rises ? 'no' : sure ? 'yes' : 'unsure' } };
}

/**
 * Traces of a table: with times, brought onto an even grid by straight lines where they are not even; else samples at
 * `sampleRate`.
 *
 * @param timed whether the first column is time.
 */
export function tableTraces({ names, columns }: Table, timed: boolean, sampleRate: number): Result<FileTraces, string> {
  const named = names.map((name, i) => ({ name, values: columns[i] as Float64Array }));
  const [times] = columns;
  return timed && times ? evenly(times, named.slice(1)) : cut({ sampleRate, columns: named.map(toFloats) });
}

/** The same for a file's text, its first column being time where it may be. */
export function readCsvTraces(text: string, sampleRate: number): Result<FileTraces, string> {
  const table = readTable(text);
  return table.ok ? tableTraces(table.value, table.value.times !== 'no', sampleRate) : table;
}

/** Even samples that uneven times may be spread to: this many a row, or this many in total. */
const MOST_PER_ROW = 20;
const MOST_EVEN = 2_000_000;

const isNumber = (cell: string): boolean => cell.trim() !== '' && Number.isFinite(Number(cell));
const toFloats = ({ name, values }: { name: string; values: Float64Array }) => ({
  name,
  values: Float32Array.from(values),
});

function evenly(
  times: Float64Array,
  columns: readonly { name: string; values: Float64Array }[],
): Result<FileTraces, string> {
  const steps = times.subarray(1).map((t, i) => t - (times[i] as number));
  const middle = steps.slice().sort()[Math.floor(steps.length / 2)] as number;
  const rate = 1 / middle;
  if (rate < RATES.least || rate > RATES.most) {
    return {
      ok: false,
      errors: `The time step is ${middle} s; supported: ${1 / RATES.most} to ${1 / RATES.least} s.`,
    };
  }
  const sampleRate = Math.abs(rate - Math.round(rate)) < 1e-3 * rate ? Math.round(rate) : rate;
  const begin = times[0] as number;
  const span = Math.min(LONGEST, (times.at(-1) as number) - begin);
  const count = Math.floor(span * sampleRate + 1e-6) + 1;
  if (count > Math.max(MOST_EVEN, MOST_PER_ROW * times.length)) {
    const errors = `The time stamps are uneven (mostly ${middle} s apart). Resample the file to even steps first (${count} samples).`;
    return { ok: false, errors };
  }
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
