import { METER_NAMES, showNumber, withUnit } from '@/core';
import type { ReadQuantity } from '@/core';

/** What an instrument calls it. */
export const QUANTITY_NAMES: Readonly<Record<ReadQuantity, string>> = {
  ...METER_NAMES,
  hz: 'Frequency',
};

/** A figure as a meter shows it: volts to the millivolt. */
export const figure = (value: number, unit: string): string => withUnit(showNumber(value, unit === 'V' ? 3 : 2), unit);
