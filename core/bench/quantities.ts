/** What an instrument reads. */
export const READ_QUANTITIES = ['low', 'high', 'mean', 'steady', 'rms', 'percent', 'pulses', 'hz'] as const;
export type ReadQuantity = (typeof READ_QUANTITIES)[number];

export const READING_LIMITS = { most: 20_000, knobs: 64, value: 1e9, step: 220 } as const;

/** The unit of a quantity. */
export const readingUnit = (quantity: ReadQuantity): string =>
  quantity === 'percent' ? '%' : quantity === 'pulses' ? '/s' : quantity === 'hz' ? 'Hz' : 'V';
