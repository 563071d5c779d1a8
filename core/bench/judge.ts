import { readQuantity } from '../units/knob';
import type { ReadQuantity } from './quantities';

/** How a reading stands to what was expected: within ± of it, up to three times as far, or further. */
export type Verdict = 'good' | 'off' | 'wrong';

const OFF = 3;

export interface Expected {
  readonly value: number;
  readonly plusMinus: number;
}

/** A reading against what is expected there. */
export function judge(value: number, { value: expected, plusMinus }: Expected): Verdict {
  const far = Math.abs(value - expected);
  return far <= plusMinus ? 'good' : far <= OFF * plusMinus ? 'off' : 'wrong';
}

/** 0 dBu and 0 dBV, volts RMS. */
const DBU = Math.sqrt(0.6);
const LEVEL = /^([+-]?\d+(?:\.\d+)?)\s*dB(u|V)?$/i;

/**
 * A reading as people type it: `4.2`, `4,2 V`, `38 mV`; of an AC voltage also `-12 dB` or `-12 dBu` (against 0.775 V) and
 * `-14 dBV`.
 *
 * @returns the figure in `unit`; null where it is none.
 */
export function readMeter(text: string, quantity: ReadQuantity, unit: string): number | null {
  const plain = readQuantity(text, unit);
  if (plain !== null || quantity !== 'rms') return plain;
  const level = LEVEL.exec(
    text
      .trim()
      .replace(/\u2212/g, '-')
      .replace(',', '.'),
  );
  return level ? (level[2] === 'V' || level[2] === 'v' ? 1 : DBU) * 10 ** (Number(level[1]) / 20) : null;
}
