import { commonMultiple, toNumber } from '../units/fraction';
import type { Fraction } from '../units/fraction';

/** How something repeats: never moving, never repeating, or with a period in seconds. */
export type Cycle = 'none' | 'never' | Fraction;

/** What repeats at this rate or faster is sound, not slow movement, Hz. */
const SOUND_HZ = 20n;

/** The longest period that anybody waits to see whole, seconds. */
const LONGEST_SLOW = 60;

export function commonCycle(a: Cycle, b: Cycle): Cycle {
  if (a === 'never' || b === 'never') return 'never';
  if (a === 'none') return b;
  if (b === 'none') return a;
  return commonMultiple(a, b);
}

const isSound = (cycle: Cycle): boolean => typeof cycle !== 'string' && cycle.n * SOUND_HZ <= cycle.d;

/** The common cycle of two movements, in which sound beside something slower does not count. */
export function slowerOf(a: Cycle, b: Cycle): Cycle {
  if (isSound(a) && b !== 'none' && !isSound(b)) return b;
  if (isSound(b) && a !== 'none' && !isSound(a)) return a;
  return commonCycle(a, b);
}

/** After how many seconds a movement repeats; null where it does not, is sound, or takes longer than a minute. */
export function slowSeconds(cycle: Cycle): number | null {
  if (typeof cycle === 'string' || isSound(cycle)) return null;
  const seconds = toNumber(cycle);
  return seconds > LONGEST_SLOW ? null : seconds;
}
