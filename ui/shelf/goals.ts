import type { Wish } from '@/core';

/** What a goal may be about. */
export type Way = 'range' | 'within' | 'span' | 'mean' | 'fall';

interface Fields {
  readonly title: string;
  readonly names: readonly string[];
}

/** The figures that each way wants. */
export const FIELDS: Readonly<Record<Way, Fields>> = {
  range: { title: 'Between which values?', names: ['from', 'to'] },
  within: { title: 'Between which values?', names: ['from', 'to'] },
  span: { title: 'How wide, about what?', names: ['wide', 'about'] },
  mean: { title: 'About which value?', names: ['on average'] },
  fall: { title: 'How many dB down, in how many seconds?', names: ['dB', 'seconds'] },
};

/** The ways that make sense for a destination, in words. */
export const waysFor = (quantity: string, unit: string): readonly (readonly [Way, string])[] => [
  ['range', 'from … to …'],
  ['within', 'stays inside …'],
  ['span', unit === 'Hz' || unit === 's' ? 'so many octaves about a middle' : 'so wide about a middle'],
  ['mean', 'on average at …'],
  ...(quantity === 'gain' ? ([['fall', 'falls by so much in so long']] as const) : []),
];

/** What is wrong with the figures of a way; null where nothing is. */
export function faultOf(way: Way, [low, high]: readonly (number | null | undefined)[], unit: string): string | null {
  const one = FIELDS[way].names.length === 1;
  if (typeof low !== 'number' || (!one && typeof high !== 'number'))
    return `Type ${one ? 'a figure' : 'two figures'}${unit && way !== 'fall' ? ` in ${unit}` : ''}.`;
  if ((way === 'range' || way === 'within') && low >= Number(high))
    return 'The first figure must lie below the second.';
  if (way === 'span' && low <= 0) return 'It must be wider than nothing.';
  if (way === 'fall' && (low <= 0 || Number(high) <= 0)) return 'Both must be more than nothing.';
  return null;
}

/** The figures as a target without its place; null while they are none. */
export function wishOf(way: Way, quantity: string, figures: readonly (number | null | undefined)[]): Wish | null {
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
