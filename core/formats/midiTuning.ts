import type { Result } from '../document/types';
import { equalTuning, KEY_COUNT } from './keyTuning';
import type { KeyTuning } from './keyTuning';

/**
 * Tunings as MIDI carries them: system exclusive messages of the MIDI Tuning Standard (MIDI 1.0 Detailed Specification,
 * "MIDI Tuning Messages", with its extension of scale/octave tunings).
 */

const [BEGIN, END] = [0xf0, 0xf7];
/** Sub-ID #1 of tuning messages, real-time or not. */
const TUNING = 0x08;
const [LATER, REAL_TIME] = [0x7e, 0x7f];
const NAME = 16;
/** Fractions of a semitone in a key's pitch. */
const STEPS = 2 ** 14;

type Notes = readonly (number | null)[];

/** What a message does to the notes of a keyboard; its name where it carries one. */
interface Message {
  readonly name: string | null;
  readonly change: (notes: Notes) => Notes;
}

const MALFORMED = 'A tuning message in it is cut short.';
const ascii = (bytes: Uint8Array): string =>
  String.fromCharCode(...bytes)
    // A name is padded with what does not print.
    .replace(/[\u0000-\u001f\u007f]/g, ' ')
    .trim();

/** A pitch of three bytes: a semitone and a fraction of it; null where it says that nothing changes. */
function pitchIn(bytes: Uint8Array, at: number): number | null {
  const [semitone = 0, coarse = 0, fine = 0] = bytes.subarray(at, at + 3);
  if (semitone === 0x7f && coarse === 0x7f && fine === 0x7f) return null;
  return semitone + (128 * coarse + fine) / STEPS;
}

/** All keys at once. */
function bulkDump(body: Uint8Array, begins: number): Message | null {
  const keys = body.subarray(begins + NAME);
  if (keys.length < 3 * KEY_COUNT) return null;
  const notes = equalTuning.notes.map((_, key) => pitchIn(keys, 3 * key));
  return { name: ascii(body.subarray(begins, begins + NAME)), change: () => notes };
}

/** Some keys, each with its pitch. */
function someKeys(body: Uint8Array, begins: number): Message | null {
  const changes = body.subarray(begins + 1);
  const count = body[begins] ?? 0;
  if (changes.length < 4 * count) return null;
  const retuned = new Map(
    Array.from({ length: count }, (_, i) => [changes[4 * i], pitchIn(changes, 4 * i + 1)] as const),
  );
  return { name: null, change: (notes) => notes.map((note, key) => retuned.get(key) ?? note) };
}

/** The twelve keys of every octave, off their equal semitones, cents. */
function octave(cents: readonly number[], name: string | null): Message | null {
  if (cents.length < 12 || cents.some((c) => Number.isNaN(c))) return null;
  return { name, change: () => equalTuning.notes.map((_, key) => key + (cents[key % 12] as number) / 100) };
}

const twelve = (read: (i: number) => number): number[] => Array.from({ length: 12 }, (_, i) => read(i));
/** One byte a key, 64 for none, a cent a step. */
const byBytes = (bytes: Uint8Array): number[] => twelve((i) => (bytes[i] ?? Number.NaN) - 64);
/** Two bytes a key, 8192 for none, a hundred cents for as many steps. */
const byPairs = (bytes: Uint8Array): number[] =>
  twelve((i) => (100 * (128 * (bytes[2 * i] ?? Number.NaN) + (bytes[2 * i + 1] ?? Number.NaN) - 8192)) / 8192);

/** What a message is, by its sub-ID #2; `undefined` for one that tunes nothing, null for one that is cut short. */
function messageOf(id: number, body: Uint8Array): Message | null | undefined {
  const named = ascii(body.subarray(2, 2 + NAME));
  switch (id) {
    case 0x01:
      return bulkDump(body, 1);
    case 0x02:
      return someKeys(body, 1);
    case 0x04:
      return bulkDump(body, 2);
    case 0x05:
      return octave(byBytes(body.subarray(2 + NAME)), named);
    case 0x06:
      return octave(byPairs(body.subarray(2 + NAME)), named);
    case 0x07:
      return someKeys(body, 2);
    // Three bytes say for which channels.
    case 0x08:
      return octave(byBytes(body.subarray(3)), null);
    case 0x09:
      return octave(byPairs(body.subarray(3)), null);
    default:
      return undefined;
  }
}

/** The tuning messages among system exclusive messages; null in the place of one that is cut short. */
function* tuningMessages(bytes: Uint8Array): Generator<Message | null> {
  for (let at = bytes.indexOf(BEGIN); at >= 0;) {
    const end = bytes.indexOf(END, at);
    const [, kind = 0, , group = 0, id = 0] = bytes.subarray(at, at + 5);
    if (group === TUNING && (kind === LATER || kind === REAL_TIME)) {
      const message = end < 0 ? null : messageOf(id, bytes.subarray(at + 5, end));
      if (message !== undefined) yield message;
    }
    at = end < 0 ? -1 : bytes.indexOf(BEGIN, end);
  }
}

/**
 * Reads the tuning in system exclusive messages: whole dumps, keys one by one, octaves. Of several whole tunings the
 * first counts. Checksums are not compared: the standard leaves open what they are taken over.
 *
 * @param before what changes of single keys are made to.
 * @returns the tuning, or what is wrong.
 */
export function readTuning(bytes: Uint8Array, before: KeyTuning = equalTuning): Result<KeyTuning, string> {
  let found: KeyTuning | null = null;
  for (const message of tuningMessages(bytes)) {
    if (message === null) return { ok: false, errors: MALFORMED };
    if (found !== null && message.name !== null) break;
    const { name, notes }: KeyTuning = found ?? before;
    found = { name: message.name || (found ? name : 'MIDI tuning'), notes: message.change(notes) };
  }
  return found ? { ok: true, value: found } : { ok: false, errors: 'There is no MIDI tuning in it.' };
}

/** A pitch as three bytes; what no key can have is the nearest that one can. */
function pitchBytes(note: number | null): number[] {
  if (note === null) return [0x7f, 0x7f, 0x7f];
  // The highest of all says that nothing changes.
  const steps = Math.min(KEY_COUNT * STEPS - 2, Math.max(0, Math.round(note * STEPS)));
  return [Math.floor(steps / STEPS), Math.floor(steps / 128) % 128, steps % 128];
}

/**
 * A tuning as a bulk dump, program 0 of any device; `readTuning` reads it again to half of 1/16384 semitone.
 *
 * @returns the message's bytes, from F0 to F7.
 */
export function printTuning({ name, notes }: KeyTuning): Uint8Array<ArrayBuffer> {
  const plain = name.replaceAll(/[^\u0020-\u007e]/g, '?').slice(0, NAME);
  const letters = [...plain.padEnd(NAME)].map((c) => c.charCodeAt(0));
  const said = [LATER, 0x7f, TUNING, 0x01, 0, ...letters, ...notes.flatMap(pitchBytes)];
  const checksum = said.reduce((sum, byte) => sum ^ byte, 0) & 0x7f;
  return Uint8Array.from([BEGIN, ...said, checksum, END]);
}

/** Whether two tunings play the same, to a hundredth of a cent. */
export const sameTuning = (a: KeyTuning, b: KeyTuning): boolean =>
  a.notes.every((note, key) => {
    const other = b.notes[key] ?? null;
    return note === null || other === null ? note === other : Math.abs(note - other) < 1e-4;
  });
