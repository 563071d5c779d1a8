import type { ScaleLinear } from 'd3-scale';
import { rulerSeconds } from '@/core';

interface TimeTick {
  readonly t: number;
  readonly says: string;
}

/**
 * Even times along a ruler, each with room for its figure: a scale may make more than it was asked for.
 *
 * @param x seconds to pixels.
 * @param room of one figure, pixels.
 * @param origin the moment that they are counted from, seconds.
 */
export function timeTicks(x: ScaleLinear<number, number>, room: number, origin = 0): TimeTick[] {
  const [from = 0, to = 0] = x.range();
  const all = x.ticks(Math.max(1, Math.floor((to - from) / room)));
  const step = x(all[1] ?? 0) - x(all[0] ?? 0);
  const every = step > 0 ? Math.ceil(room / step) : 1;
  const ticks = all.filter((_, i) => i % every === 0);
  const texts = rulerSeconds(ticks.map((t) => t - origin));
  return ticks.map((t, i) => ({ t, says: texts[i] ?? '' }));
}
