import type { Range } from '@/core';

/** The ruler's span: all that the frames can reach, with room for the numbers at their edges. */
export function domainOf(ranges: readonly Range[]): Range {
  const low = Math.min(-0.5, ...ranges.map((r) => r[0]));
  const high = Math.max(0.5, ...ranges.map((r) => r[1]));
  const room = (high - low) * 0.07;
  // In steps, so that the ruler stands still while a knob turns.
  const step = high - low > 8 ? 1 : 0.5;
  return [Math.floor((low - room) / step) * step, Math.ceil((high + room) / step) * step];
}
