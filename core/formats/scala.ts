import type { Result } from '../document/types';

/** Scales and keyboard mappings as text files of the Scala form: `.scl` and `.kbm`. */

/** Semitones in an octave. */
const OCTAVE = 12;
/** A period nearer to the octave than this is one, semitones. */
const NEAR = 0.005;
/** Semitones to a ten-thousandth of a cent. */
const rounded = (semitones: number): number => Number(semitones.toFixed(6));

/** A scale of any number of notes that repeats after its period. */
export interface ScalaScale {
  readonly name: string;
  /** Semitones above the first note, which is 0 and first; in the file's order. */
  readonly degrees: readonly number[];
  /** Semitones after which it repeats. */
  readonly period: number;
}

/** Which keys play which degrees, and what they are tuned to. */
export interface KeyboardMap {
  /** Degree of each key from the middle one on; null: the key plays nothing. Empty: key after key, degree after degree. */
  readonly degrees: readonly (number | null)[];
  /** MIDI number of the key that plays the first degree. */
  readonly middle: number;
  /** MIDI number of the key whose frequency is given. */
  readonly reference: number;
  readonly hz: number;
  /** The degree that keys reach after a whole mapping. */
  readonly octaveDegree: number;
}

interface Line {
  readonly text: string;
  /** From 1. */
  readonly number: number;
}

/** What counts of a file: comments begin with `!`. */
const linesOf = (text: string): Line[] =>
  text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\r|\n/)
    .map((line, i) => ({ text: line, number: i + 1 }))
    .filter((line) => !line.text.startsWith('!'));

const wrong = (message: string, line?: Line): { ok: false; errors: string } => ({
  ok: false,
  errors: line ? `Line ${line.number}: ${message}` : message,
});

/** The first word of a line. */
const wordOf = (line: Line | undefined): string => (line?.text.trim() ?? '').split(/\s/)[0] ?? '';

/** A pitch as the form has it: cents with a point, else a ratio or a whole number; semitones, or null where it is none. */
function semitonesOf(word: string): number | null {
  if (/^-?\d*\.\d*$/.test(word) && /\d/.test(word)) return rounded(Number(word) / 100);
  const ratio = /^(\d+)(?:\/(\d+))?$/.exec(word);
  const [over, under] = [Number(ratio?.[1] ?? 0), Number(ratio?.[2] ?? 1)];
  return over > 0 && under > 0 ? rounded(OCTAVE * Math.log2(over / under)) : null;
}

/**
 * Reads a scale file.
 *
 * @returns the scale, or what is wrong with the file and in which line.
 */
export function readScl(text: string): Result<ScalaScale, string> {
  const [name, count, ...rest] = linesOf(text);
  const n = Number(wordOf(count));
  if (!name || !count || !/^\d+$/.test(wordOf(count))) return wrong('expected how many notes the scale has', count);
  if (n < 1) return wrong('a scale needs one note at least', count);
  const pitches = rest.filter((line) => line.text.trim() !== '').slice(0, n);
  if (pitches.length < n) return wrong(`expected ${n} notes, found ${pitches.length}`);
  const semitones: number[] = [];
  for (const line of pitches) {
    const found = semitonesOf(wordOf(line));
    if (found === null) return wrong(`“${line.text.trim()}” is neither cents (701.955) nor a ratio (3/2)`, line);
    semitones.push(found);
  }
  const period = semitones.at(-1) as number;
  if (period <= 0) return wrong('the last note must be above the first: after it the scale repeats', pitches.at(-1));
  return { ok: true, value: { name: name.text.trim(), degrees: [0, ...semitones.slice(0, -1)], period } };
}

/**
 * Writes a scale that repeats at the octave as a scale file; `readScl` reads the same notes.
 *
 * @param semitones 0..12 above the root.
 */
export function printScl(name: string, semitones: readonly number[]): string {
  const [first = 0, ...others] = [...new Set(semitones.map((s) => s % OCTAVE))].sort((a, b) => a - b);
  const cents = [...others.map((s) => s - first), OCTAVE].map((s) => ` ${(100 * s).toFixed(5)}`);
  return [
    `! ${name.replaceAll(/\s+/g, ' ')}.scl`,
    '!',
    name.replaceAll(/\s+/g, ' '),
    ` ${cents.length}`,
    '!',
    ...cents,
    '',
  ].join('\n');
}

/**
 * Reads a keyboard mapping.
 *
 * @returns the mapping, or what is wrong with the file and in which line.
 */
export function readKbm(text: string): Result<KeyboardMap, string> {
  const lines = linesOf(text).filter((line) => line.text.trim() !== '');
  const said = [
    'the size of the map',
    'its first key',
    'its last key',
    'the middle key',
    'the reference key',
    'the reference frequency',
    'the degree of the octave',
  ];
  const figures: number[] = [];
  for (const [i, what] of said.entries()) {
    const value = Number(wordOf(lines[i]) || Number.NaN);
    const isWhole = i === 5 || Number.isInteger(value);
    if (!Number.isFinite(value) || value < 0 || !isWhole) return wrong(`expected ${what}`, lines[i]);
    figures.push(value);
  }
  const [size = 0, , , middle = 60, reference = 69, hz = 440, octaveDegree = 0] = figures;
  if (hz <= 0) return wrong('the reference frequency must be above 0 Hz', lines[5]);
  const degrees: (number | null)[] = [];
  for (let i = 0; i < size; i++) {
    const line = lines[said.length + i];
    const word = wordOf(line);
    if (word !== '' && !/^(\d+|x)$/i.test(word)) return wrong(`“${word}” is neither a degree nor x`, line);
    degrees.push(/^\d+$/.test(word) ? Number(word) : null);
  }
  return { ok: true, value: { degrees, middle, reference, hz, octaveDegree } };
}

/** What a scale and a mapping come to in a quantizer that repeats at the octave. */
export interface QuantizerScale {
  /** Semitones 0..12 above the root, rising. */
  readonly scale: readonly number[];
  /** Semitones above C, 0..11. */
  readonly root: number;
  /** How far an oscillator is tuned from C4 at 0 V so that the reference key has its frequency, cents. */
  readonly tuneCents: number;
}

export const C4_HZ = 440 * 2 ** (-9 / OCTAVE);
export const C4_KEY = 60;

/** Semitones of a degree, beyond the scale too: it goes on with the next period. */
const pitchOf = ({ degrees, period }: ScalaScale, degree: number): number => {
  const turn = Math.floor(degree / degrees.length);
  return (degrees[degree - turn * degrees.length] as number) + turn * period;
};

/** Semitones above the middle key that a key plays; null where it plays nothing. */
export function keyPitch(
  scale: ScalaScale,
  { degrees, middle, octaveDegree }: KeyboardMap,
  key: number,
): number | null {
  if (degrees.length === 0) return pitchOf(scale, key - middle);
  const turn = Math.floor((key - middle) / degrees.length);
  const degree = degrees[key - middle - turn * degrees.length] ?? null;
  return degree === null ? null : pitchOf(scale, degree) + turn * pitchOf(scale, octaveDegree || scale.degrees.length);
}

/**
 * A scale, with a mapping where there is one, as a quantizer has it: the notes that keys play, its root, and the tuning
 * that the mapping asks for.
 *
 * @returns what the quantizer is set to, or why it cannot play the scale.
 */
export function quantizerScale(scale: ScalaScale, map: KeyboardMap | null): Result<QuantizerScale, string> {
  if (Math.abs(scale.period - OCTAVE) > NEAR)
    return wrong(
      `This scale repeats after ${(100 * scale.period).toFixed(1)} ct. A quantizer repeats at the octave, 1200 ct.`,
    );
  const octave = map ? pitchOf(scale, map.octaveDegree || scale.degrees.length) : OCTAVE;
  if (Math.abs(octave - OCTAVE) > NEAR)
    return wrong(
      `This mapping repeats after ${(100 * octave).toFixed(1)} ct. A quantizer repeats at the octave, 1200 ct.`,
    );
  const mapped = map?.degrees.flatMap((d) => (d === null ? [] : [pitchOf(scale, d)])) ?? [];
  const pitches = mapped.length > 0 ? mapped : scale.degrees;
  const notes = [...new Set(pitches.map((s) => rounded(((s % OCTAVE) + OCTAVE) % OCTAVE)))].sort((a, b) => a - b);
  if (notes.length > 128) return wrong(`This scale has ${notes.length} notes; a quantizer holds 128.`);
  if (!map) return { ok: true, value: { scale: notes, root: 0, tuneCents: 0 } };
  const reference = keyPitch(scale, map, map.reference);
  if (reference === null) return wrong(`The reference key ${map.reference} plays nothing in this mapping.`);
  const hz = C4_HZ * 2 ** ((map.middle - C4_KEY + reference) / OCTAVE);
  const root = ((map.middle % OCTAVE) + OCTAVE) % OCTAVE;
  return { ok: true, value: { scale: notes, root, tuneCents: 1200 * Math.log2(map.hz / hz) } };
}
