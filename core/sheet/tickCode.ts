import type { Sheet } from './types';

/** The first word of a code, so that another's is told from it. */
const MARK = 'fenvo-ticks';

/** A step as a code tells it. */
export interface CodedTick {
  readonly step: string;
  readonly done: boolean;
  /** What was read there, as it was typed, where it was one line. */
  readonly read?: string;
  /** The same of each figure, by its quantity. */
  readonly reads?: Readonly<Record<string, string>>;
}

/** A number for the steps of a sheet in their order (FNV-1a): a code without their names fits no other sheet. */
export function stepsMark(sheet: Sheet): string {
  let hash = 0x811c9dc5;
  for (const c of new TextEncoder().encode(sheet.steps.map((s) => s.id).join('\n')))
    hash = Math.imul(hash ^ c, 0x01000193) >>> 0;
  return hash.toString(36);
}

/**
 * Ticks and readings as a text that is short enough for a QR code: `fenvo-ticks 1 <steps> <milliseconds> <done>
 * <readings>`, the steps' mark and the time in base 36, a digit 0 or 1 for each step, and readings as
 * `step=value` by the step's number, `;` between them.
 */
export function ticksToCode(sheet: Sheet, ticks: readonly CodedTick[], at: number): string {
  const by = new Map(ticks.map((t) => [t.step, t]));
  const done = sheet.steps.map((s) => (by.get(s.id)?.done ? '1' : '0')).join('');
  const reads = sheet.steps.flatMap((s, i) => {
    const { read, reads = {} } = by.get(s.id) ?? {};
    const each = Object.entries(reads).flatMap(([q, text]) => (text ? [`${i}:${q}=${encodeURIComponent(text)}`] : []));
    return [...(read ? [`${i}=${encodeURIComponent(read)}`] : []), ...each];
  });
  return [MARK, '1', stepsMark(sheet), at.toString(36), done, reads.join(';')].join(' ');
}

/**
 * Reads what `ticksToCode` wrote.
 *
 * @throws Error where it is no such code, of a later version, or of another sheet.
 */
export function ticksFromCode(sheet: Sheet, code: string): { readonly ticks: CodedTick[]; readonly at: number } {
  const [mark, version, steps, time = '', done = '', reads = ''] = code.trim().split(' ');
  if (mark !== MARK) throw new Error('This is not a ticks code.');
  if (version !== '1') throw new Error(`The code is of version ${version ?? '?'}; this program reads version 1.`);
  if (steps !== stepsMark(sheet) || done.length !== sheet.steps.length || !/^[01]*$/.test(done))
    throw new Error('This code is for another sheet, or the patch has changed since. Import the ticks file instead.');
  const at = parseInt(time, 36);
  if (!Number.isSafeInteger(at) || at < 0)
    throw new Error('The ticks code is damaged: its time could not be read. Scan it again, or import the ticks file.');
  const read = new Map(
    reads
      .split(';')
      .filter((part) => part !== '')
      .map((part) => {
        const [index = '', value = ''] = part.split('=');
        return [index, decodeURIComponent(value)] as const;
      }),
  );
  const readsOf = (i: number): Record<string, string> =>
    Object.fromEntries(
      [...read].flatMap(([index, value]) => {
        const [step = '', quantity] = index.split(':');
        return Number(step) === i && quantity !== undefined ? [[quantity, value]] : [];
      }),
    );
  const ticks = sheet.steps.flatMap((s, i): CodedTick[] => {
    const value = read.get(String(i));
    const reads = readsOf(i);
    const some = Object.keys(reads).length > 0;
    if (done[i] !== '1' && value === undefined && !some) return [];
    return [{ step: s.id, done: done[i] === '1', ...(value !== undefined && { read: value }), ...(some && { reads }) }];
  });
  return { ticks, at };
}
