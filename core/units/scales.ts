/** Scales by name, as semitones above the root. */
const scales = {
  chromatic: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11],
  major: [0, 2, 4, 5, 7, 9, 11],
  minor: [0, 2, 3, 5, 7, 8, 10],
  harmonicMinor: [0, 2, 3, 5, 7, 8, 11],
  dorian: [0, 2, 3, 5, 7, 9, 10],
  phrygian: [0, 1, 3, 5, 7, 8, 10],
  lydian: [0, 2, 4, 6, 7, 9, 11],
  mixolydian: [0, 2, 4, 5, 7, 9, 10],
  locrian: [0, 1, 3, 5, 6, 8, 10],
  majorPentatonic: [0, 2, 4, 7, 9],
  minorPentatonic: [0, 3, 5, 7, 10],
  blues: [0, 3, 5, 6, 7, 10],
  wholeTone: [0, 2, 4, 6, 8, 10],
  octaves: [0],
  fifths: [0, 7],
} as const satisfies Record<string, readonly number[]>;

export const scaleNames: readonly string[] = Object.keys(scales);

/** A scale's name as musicians write it: `minor pentatonic`. */
export const scaleTitle = (name: string): string => name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

/** A scale as a sentence says it: its name, or how many notes it has. */
export const scaleText = (scale: string | readonly number[]): string =>
  typeof scale === 'string' ? scaleTitle(scale) : `${scale.length} notes`;

/** The scale that is meant by a name, however its words are joined; undefined where there is none. */
export const scaleNamed = (text: string): string | undefined => {
  const joined = text.toLowerCase().replace(/[^a-z]/g, '');
  return scaleNames.find((name) => name.toLowerCase() === joined);
};

/** The semitones 0..12 of a scale by name or list; 12 is the next 0. */
export function scaleSemitones(scale: string | readonly number[]): readonly number[] {
  if (typeof scale !== 'string') return [...new Set(scale.map((n) => n % 12))].sort((a, b) => a - b);
  return (scales as Record<string, readonly number[]>)[scale] ?? scales.chromatic;
}
