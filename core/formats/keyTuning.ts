import { C4_HZ, C4_KEY, keyPitch } from './scala';
import type { KeyboardMap, ScalaScale } from './scala';

/** Keys of a MIDI keyboard. */
export const KEY_COUNT = 128;

/** What every key of a keyboard plays. */
export interface KeyTuning {
  readonly name: string;
  /** By key, 0..127: semitones above MIDI note 0, so that 60 is C4 and 69 is 440 Hz; null: the key plays nothing. */
  readonly notes: readonly (number | null)[];
}

/** Twelve equal semitones an octave, A4 at 440 Hz. */
export const equalTuning: KeyTuning = {
  name: 'Equal temperament',
  notes: Array.from({ length: KEY_COUNT }, (_, key) => key),
};

/** Keys one after another, from C4 on its own pitch. */
const plainMap: KeyboardMap = { degrees: [], middle: C4_KEY, reference: C4_KEY, hz: C4_HZ, octaveDegree: 0 };

/**
 * A scale, of any period, over a keyboard.
 *
 * @param map which keys play which degrees; without one the scale goes up key after key from C4.
 * @returns the tuning, or why there is none.
 */
export function keyTuning(scale: ScalaScale, map: KeyboardMap = plainMap): KeyTuning | string {
  const reference = keyPitch(scale, map, map.reference);
  if (reference === null) return `The reference key ${map.reference} plays nothing in this mapping.`;
  const base = C4_KEY + 12 * Math.log2(map.hz / C4_HZ) - reference;
  const notes = equalTuning.notes.map((_, key) => {
    const pitch = keyPitch(scale, map, key);
    return pitch === null ? null : base + pitch;
  });
  return { name: scale.name || 'Scale', notes };
}
