import { showNumber, showQuantity, showRange, withUnit } from '@/core';
import type { Reading } from '@/core';

/** A reading in one line: its figure in its own unit, or what can never be left. */
export function readingText(r: Reading): string {
  if (r.quantity === 'pulses') return pulsesText(r);
  if (r.quantity === 'level') return levelText(r);
  return showRange(r.low, r.high, r.unit);
}

function pulsesText({ always, low, unit }: Reading): string {
  if (always === 'low') return 'never high';
  if (always === 'high') return 'always high';
  return low === null ? 'pulses' : `${showQuantity(low, unit)} seen`;
}

function levelText({ low, silent, peakHigh, unit }: Reading): string {
  const peak = peakHigh === undefined || peakHigh === null ? '' : `peak ${showQuantity(peakHigh, unit)}`;
  if (low === null && !silent) return peak || '–';
  return [showQuantity(low, unit), peak].filter(Boolean).join(', ');
}

const percent = (share: number): string => withUnit(showNumber(share, share < 10 ? 1 : 0), '%');

/** What else is to be said of it: how long it is beyond its window, how long high, how far over line levels. */
export function readingMore(r: Reading): string {
  const beyond = [
    (r.pinnedLowPercent ?? 0) > 0 && `${percent(r.pinnedLowPercent ?? 0)} below`,
    (r.pinnedHighPercent ?? 0) > 0 && `${percent(r.pinnedHighPercent ?? 0)} above`,
  ].filter(Boolean);
  const over = (db: number | undefined, than: string): string =>
    db === undefined ? '' : `${withUnit(showNumber(db, 1, true), 'dB')} to ${than}`;
  return [
    beyond.length > 0 && `beyond its window: ${beyond.join(', ')} of the time`,
    r.highPercent !== undefined && r.always === null && `high for ${percent(r.highPercent)} of the time`,
    over(r.overStudioDb, '+4 dBu'),
    over(r.overHomeDb, '−10 dBV'),
  ]
    .filter(Boolean)
    .join(' · ');
}
