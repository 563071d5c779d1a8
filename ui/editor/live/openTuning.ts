import type { Result } from '@/core';
import { keyTuning } from '@/core/formats/keyTuning';
import type { KeyTuning } from '@/core/formats/keyTuning';
import { readTuning } from '@/core/formats/midiTuning';
import { readKbm, readScl } from '@/core/formats/scala';
import type { ScalaScale } from '@/core/formats/scala';

/** Files that say what keys play. */
export const TUNING_FILES = '.syx,.scl,.kbm';

/** What a mapping alone is laid over. */
const twelveEven: ScalaScale = {
  name: 'Equal temperament',
  degrees: Array.from({ length: 12 }, (_, i) => i),
  period: 12,
};

interface Read {
  readonly tuning: KeyTuning;
  /** The scale that a mapping may follow. */
  readonly scale: ScalaScale | null;
}

function laidOut(scale: ScalaScale, made: KeyTuning | string): Result<Read, string> {
  return typeof made === 'string' ? { ok: false, errors: made } : { ok: true, value: { tuning: made, scale } };
}

/**
 * Reads a tuning, a scale or a keyboard mapping by what its file's name says it is.
 *
 * @param before the scale that was read last, which a mapping belongs to.
 */
export async function openTuning(file: File, before: ScalaScale | null): Promise<Result<Read, string>> {
  if (/\.scl$/i.test(file.name)) {
    const scale = readScl(await file.text());
    return scale.ok ? laidOut(scale.value, keyTuning(scale.value)) : scale;
  }
  if (/\.kbm$/i.test(file.name)) {
    const map = readKbm(await file.text());
    const scale = before ?? twelveEven;
    return map.ok ? laidOut(scale, keyTuning(scale, map.value)) : map;
  }
  if (!/\.syx$/i.test(file.name)) return { ok: false, errors: 'unsupported file type. Use .syx, .scl or .kbm.' };
  const tuning = readTuning(new Uint8Array(await file.arrayBuffer()));
  return tuning.ok ? { ok: true, value: { tuning: tuning.value, scale: null } } : tuning;
}
