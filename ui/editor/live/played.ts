import { FADER, idOf, isFaderKind, kindNamed, knobPlace, knobsIn, placeName, positionOf, valueAt } from '@/core';
import { equalTuning } from '@/core/formats/keyTuning';
import type { KeyTuning } from '@/core/formats/keyTuning';
import type { Edit, ModuleDoc, Patch, Travel } from '@/core';

/** A knob that is played by a fader on the screen, or by a controller. */
export interface Played {
  /** `moduleId.parameter` */
  readonly at: string;
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly taper: Travel['taper'];
  readonly value: number;
  readonly unit: string;
}

/** All knobs of a patch; those of plain voltages first, since they are faders already. */
export function playable(patch: Patch): Played[] {
  const { bpm } = patch.settings;
  const all = patch.modules.flatMap((m) => {
    const fader = isFaderKind(m.kind);
    return knobsIn(m, bpm).map(({ at, spec, min, max, value }) => ({
      fader,
      at,
      label: fader ? placeName(patch.modules, m.id) : knobPlace(patch.modules, at),
      min,
      max,
      taper: spec.taper,
      value,
      unit: spec.unit ?? '',
    }));
  });
  return [...all.filter((p) => p.fader), ...all.filter((p) => !p.fader)].map(({ fader: _, ...p }) => p);
}

/** A drawn gesture as a fader in a hand's own power, where the gesture begins. */
export function fader(m: ModuleDoc): Edit {
  const points = m.params?.[kindNamed(m.kind)?.panel?.drawn ?? ''] as readonly { readonly volts: number }[] | undefined;
  const { params: _drawn, ...rest } = m;
  return { do: 'replace', module: { ...rest, kind: FADER, params: { volts: points?.[0]?.volts ?? 0 } } };
}

export const isFader = (patch: Patch, at: string): boolean =>
  patch.modules.some((m) => isFaderKind(m.kind) && m.id === idOf(at));

/** Two octaves of keys, as letters and signs lie on a keyboard. */
export const KEYS = 'zsxdcvgbhnjmq2w3er5t6y7ui'.split('');

/** Which of the keys are upper ones. */
export const isUpper = (key: number): boolean => [1, 3, 6, 8, 10].includes(key % 12);

/** The MIDI numbers of the first key, and of the one at 0 V. */
export const FIRST_KEY = 48;
const ZERO_KEY = 60;

/** The voltage of a key, in equal semitones an octave below 0 V at the first; null where it plays nothing. */
export function voltsOfKey(key: number, tuning: KeyTuning = equalTuning): number | null {
  const note = tuning.notes[FIRST_KEY + key] ?? null;
  return note === null ? null : Math.round(((note - ZERO_KEY) / 12) * 1e6) / 1e6;
}

/** What a key moves a fader by, of its whole way. */
const KEY_STEPS: Readonly<Record<string, number>> = {
  ArrowUp: 0.01,
  ArrowRight: 0.01,
  ArrowDown: -0.01,
  ArrowLeft: -0.01,
  PageUp: 0.1,
  PageDown: -0.1,
};

/** Where a key moves a fader to on its way, with Shift by a tenth of its step; null for other keys. */
export function keyedShare(share: number, key: string, isFine: boolean): number | null {
  const step = KEY_STEPS[key];
  return step === undefined ? null : Math.min(1, Math.max(0, share + (isFine ? 0.1 : 1) * step));
}

/** Where a knob stands on its way, 0..1. */
export const shareOf = (knob: Travel & Pick<Played, 'value'>): number =>
  Math.min(1, Math.max(0, positionOf(knob, knob.value)));
export { valueAt };
