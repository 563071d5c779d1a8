import { ofArrival } from '@/core';
import type { Wish } from '@/core';

/** What a goal may be about. */
export type Way = 'range' | 'within' | 'span' | 'mean' | 'fall';

interface Fields {
  readonly title: string;
  readonly names: readonly string[];
  /** What stands between the two. */
  readonly between?: string;
}

/** The figures that each way asks for. */
export const FIELDS: Readonly<Record<Way, Fields>> = {
  range: { title: 'Range', names: ['Min', 'Max'], between: 'to' },
  within: { title: 'Range', names: ['Min', 'Max'], between: 'to' },
  span: { title: 'Width and centre', names: ['Width', 'Centre'], between: 'about' },
  mean: { title: 'Average', names: ['Average'] },
  fall: { title: 'Decay (dB) and time (s)', names: ['dB', 'seconds'], between: 'in' },
};

/** The ways that make sense for a destination, in words. */
export const waysFor = (quantity: string, unit: string): readonly (readonly [Way, string])[] => [
  ['range', 'Exact range'],
  ['within', 'Stay within limits'],
  ['span', unit === 'Hz' || unit === 's' ? 'Width in octaves, around a centre' : 'Width, around a centre'],
  ['mean', 'Average value'],
  ...(quantity === 'gain' ? ([['fall', 'Decay time']] as const) : []),
];

/** What is wrong with the figures of a way; null where nothing is. */
export function faultOf(way: Way, [low, high]: readonly (number | null | undefined)[], unit: string): string | null {
  const one = FIELDS[way].names.length === 1;
  if (typeof low !== 'number' || (!one && typeof high !== 'number'))
    return `Enter ${one ? 'a value' : 'two values'}${unit && way !== 'fall' ? ` in ${unit}` : ''}.`;
  if ((way === 'range' || way === 'within') && low >= Number(high))
    return 'The first value must be lower than the second.';
  if (way === 'span' && low <= 0) return 'The width must be greater than 0.';
  if (way === 'fall' && (low <= 0 || Number(high) <= 0)) return 'Both values must be greater than 0.';
  return null;
}

/** The figures as a target without its place; null while they are none. */
export function wishOf(way: Way, quantity: string, figures: readonly (number | null | undefined)[]): Wish | null {
  const wish = figuredOf(way, quantity, figures);
  return wish && ofArrival(wish);
}

function figuredOf(way: Way, quantity: string, figures: readonly (number | null | undefined)[]): Wish | null {
  if (faultOf(way, figures, '') !== null) return null;
  const [low, high] = figures.map(Number) as [number, number];
  switch (way) {
    case 'range':
      return { quantity, low, high };
    case 'within':
      return { want: 'within', quantity, low, high };
    case 'span':
      return { want: 'span', quantity, span: low, centre: high };
    case 'mean':
      return { want: 'mean', quantity, value: low };
    case 'fall':
      return { want: 'fall', db: low, seconds: high };
  }
}
