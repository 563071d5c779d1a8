import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { judge } from '../bench/judge';
import { readingUnit } from '../bench/quantities';
import type { BenchLog } from '../bench/log';
import type { Result } from '../document/types';
import { withinLimits } from './bundle';

/** A log as a zip: the document, and its photographs and recordings beside it under the names that it gives them. */

const LOG = 'log.fenvo.json';

/** Photographs and recordings, by the name that the log gives them. */
export type LogFiles = Readonly<Record<string, Uint8Array>>;

export const packLog = (log: unknown, files: LogFiles): Uint8Array =>
  zipSync({ [LOG]: strToU8(`${JSON.stringify(log, null, 2)}\n`), ...files }, { level: 1 });

/** @returns the log as it is written, and its files; or what is missing or wrong. */
export function unpackLog(bytes: Uint8Array): Result<{ readonly log: unknown; readonly files: LogFiles }, string> {
  try {
    const { [LOG]: log, ...files } = unzipSync(bytes, { filter: withinLimits(bytes.length) });
    if (!log) return { ok: false, errors: `It holds no ${LOG}.` };
    return { ok: true, value: { log: JSON.parse(strFromU8(log)) as unknown, files } };
  } catch (error) {
    return { ok: false, errors: error instanceof Error ? error.message : String(error) };
  }
}

const quoted = (text: string): string => (/[",\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);

/** A field that a spreadsheet would take for a formula is none. */
const plain = (text: string): string => quoted(/^[=+@-]/.test(text) ? `'${text}` : text);

/** The readings of a log as CSV: `time,session,patch,at,quantity,value,unit,expected,plusminus,verdict`. */
export function readingsToCsv({ sessions }: BenchLog): string {
  const lines = sessions.flatMap((s) =>
    s.readings.map(({ time = s.started, at, quantity, value, unit, expected, expectedPlusMinus }) => {
      const known = expected !== undefined && expectedPlusMinus !== undefined;
      const verdict = known ? judge(value, { value: expected, plusMinus: expectedPlusMinus }) : '';
      return [
        time,
        plain(s.id),
        plain(s.patch.name),
        at,
        quantity,
        String(value),
        unit ?? readingUnit(quantity),
        String(expected ?? ''),
        String(expectedPlusMinus ?? ''),
        verdict,
      ].join(',');
    }),
  );
  return ['time,session,patch,at,quantity,value,unit,expected,plusminus,verdict', ...lines, ''].join('\n');
}
