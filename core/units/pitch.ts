/** 0 V is C4; A4 = 440 Hz. */
export const C4_HZ = 440 * 2 ** (-9 / 12);

const names = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B'] as const;

export interface Note {
  /** With its octave: `A4`. */
  readonly name: string;
  /** How far off, -50..50. */
  readonly cents: number;
}

/** The nearest note of equal temperament to a pitch in semitones above C4. */
export function noteOfSemitones(semitones: number): Note {
  const nearest = Math.round(semitones);
  const index = ((nearest % 12) + 12) % 12;
  return { name: `${names[index]}${4 + Math.floor(nearest / 12)}`, cents: (semitones - nearest) * 100 };
}

const letters = { c: 0, d: 2, e: 4, f: 5, g: 7, a: 9, b: 11 } as const;

/** The frequency of a note as one writes it: `A4`, `c#3`, `B♭2`; null where it is none. */
export function hzOfNote(text: string): number | null {
  const note = /^([a-g])([#♯b♭]?)([-\u2212]?\d)$/i.exec(text.trim());
  if (!note) return null;
  const [, letter = '', sign = '', octave = ''] = note;
  const shift = sign === '' ? 0 : '#♯'.includes(sign) ? 1 : -1;
  const semitones = letters[letter.toLowerCase() as keyof typeof letters] + shift;
  return C4_HZ * 2 ** (Number(octave.replace('\u2212', '-')) - 4 + semitones / 12);
}

export const noteOfHz = (hz: number): Note => noteOfSemitones(12 * Math.log2(hz / C4_HZ));

export const noteOfVolts = (volts: number): Note => noteOfSemitones(12 * volts);
