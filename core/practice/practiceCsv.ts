import Papa from 'papaparse';
import type { PatchError, Result } from '../document/types';
import { parsePractice } from './record';
import type { PracticeAnswer, PracticeRecord } from './record';

const COLUMNS = ['id', 'skill', 'level', 'seed', 'at', 'score', 'slip', 'seconds'] as const;
const FIGURES: ReadonlySet<string> = new Set(['level', 'seed', 'score', 'seconds']);

/** A record of practice as a table: one row an answer. */
export const practiceCsv = (answers: readonly PracticeAnswer[]): string =>
  `${Papa.unparse({ fields: [...COLUMNS], data: answers.map((a) => COLUMNS.map((c) => a[c] ?? '')) }, { newline: '\n' })}\n`;

/** The record that such a table holds. @returns faults with their places, `row 3: level …`, where it is refused. */
export function recordOfCsv(text: string): Result<PracticeRecord, PatchError[]> {
  const { data, meta } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
  const missing = COLUMNS.filter((c) => c !== 'slip' && !meta.fields?.includes(c));
  if (missing.length > 0)
    return { ok: false, errors: [{ path: 'row 1', message: `has no column ${missing.join(', ')}` }] };
  const answers = data.map((row) =>
    Object.fromEntries(
      COLUMNS.filter((c) => c !== 'slip' || (row[c] ?? '') !== '').map((c) => {
        const cell = row[c] ?? '';
        return [c, FIGURES.has(c) && cell.trim() !== '' ? Number(cell) : cell];
      }),
    ),
  );
  const read = parsePractice({ format: 'fenvo.practice', version: 1, answers });
  if (read.ok) return read;
  // Rows are counted as a table shows them, its head being the first.
  const placed = read.errors.map(({ path, message }) => ({
    path: path.replace(/^answers\[(\d+)\]\.?/, (_, i: string) => `row ${Number(i) + 2}: `).replace(/: $/, ''),
    message,
  }));
  return { ok: false, errors: placed };
}
