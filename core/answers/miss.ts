import type { Target } from '../document/targets';
import { countsOctaves } from '../units/ratios';
import { showNumber, withUnit } from '../units/show';
import type { Reading } from './readings';

/** How a reading misses a target, in words: `43 cents high at the top`, and in brief `Off by 43 cents`. */
export interface MissText {
  readonly says: string;
  readonly brief: string;
}

type End = 'bottom' | 'top';

/** The figures of a reading that a target is judged by. */
type Figures = Pick<Reading, 'quantity' | 'unit' | 'low' | 'high'>;

interface EndMiss {
  readonly end: End;
  /** In the unit that it is told in, above what is asked for where positive. */
  readonly by: number;
  readonly unit: string;
}

/** A difference of two figures: cents of a frequency, percent of a time or a rate, else in the figures' own unit. */
function between(asked: number, reached: number, { quantity, unit }: Figures): Omit<EndMiss, 'end'> | null {
  if (quantity === 'frequency')
    return asked > 0 && reached > 0 ? { by: 1200 * Math.log2(reached / asked), unit: 'cents' } : null;
  if (countsOctaves(quantity)) return asked > 0 ? { by: 100 * (reached / asked - 1), unit: '%' } : null;
  return { by: reached - asked, unit };
}

const DIGITS: Readonly<Record<string, number>> = { cents: 0, dB: 1, dBu: 1, '%': 1, V: 2 };

/** As many digits as tell it from nothing. */
function amountText(by: number, unit: string): string {
  const size = Math.abs(by);
  let digits = DIGITS[unit] ?? 2;
  while (digits < 4 && Number(size.toFixed(digits)) === 0) digits++;
  const text = showNumber(size, digits);
  return unit === 'cents' ? `${text} ${text === '1' ? 'cent' : 'cents'}` : withUnit(text, unit);
}

const textOf = ({ end, by, unit }: EndMiss): MissText => {
  const amount = amountText(by, unit);
  return { says: `${amount} ${by > 0 ? 'high' : 'low'} at the ${end}`, brief: `Off by ${amount}` };
};

/** What of a reading a target speaks of: its bound, or what arrives. */
const judged = ({ basis }: Extract<Target, { basis?: unknown }>, r: Reading): Figures =>
  basis === 'arrives' ? { ...r, low: r.arrivesLow, high: r.arrivesHigh } : r;

function rangeMiss(t: Extract<Target, { high: unknown }>, r: Figures): MissText | null {
  if (typeof t.low === 'number' && r.low === null) return { says: 'Silent at the bottom', brief: 'Falls silent' };
  if (t.low === 'silent' && r.low !== null)
    return {
      says: `Never silent: ${amountText(r.low, r.unit)} ${r.low < 0 ? 'below' : 'above'} unity`,
      brief: 'Never silent',
    };
  const only = t.want === 'within';
  const ends: (EndMiss | null)[] = [
    typeof t.low === 'number' && r.low !== null ? endMiss('bottom', t.low, r.low) : null,
    t.high !== null && r.high !== null ? endMiss('top', t.high, r.high) : null,
  ];
  const missed = ends.filter((e): e is EndMiss => e !== null && e.by !== 0);
  const worst = missed.sort((a, b) => Math.abs(b.by) - Math.abs(a.by))[0];
  return worst ? textOf(worst) : null;

  function endMiss(end: End, asked: number, reached: number): EndMiss | null {
    const miss = between(asked, reached, r);
    if (!miss || (only && (end === 'bottom') === miss.by > 0)) return null;
    return { end, ...miss };
  }
}

function spanMiss(t: Extract<Target, { want: 'span' }>, r: Figures): MissText | null {
  if (r.low === null || r.high === null) return null;
  const octaves = countsOctaves(t.quantity);
  if (octaves && r.low <= 0) return null;
  const wide = octaves ? Math.log2(r.high / r.low) : r.high - r.low;
  const by = wide - t.span;
  const unit = octaves ? 'oct' : r.unit;
  if (Math.abs(by) > 1e-3 * Math.max(1, t.span)) {
    const amount = amountText(by, unit);
    return { says: `${amount} too ${by > 0 ? 'wide' : 'narrow'}`, brief: `Off by ${amount}` };
  }
  if (t.centre === null) return null;
  const centre = octaves ? Math.sqrt(r.low * r.high) : (r.low + r.high) / 2;
  const miss = between(t.centre, centre, r);
  if (!miss || miss.by === 0) return null;
  const amount = amountText(miss.by, miss.unit);
  return { says: `Centre ${amount} too ${miss.by > 0 ? 'high' : 'low'}`, brief: `Off by ${amount}` };
}

/**
 * How far a reading is from what a target asks for, in the destination's own unit.
 *
 * @returns null where figures alone do not tell it: a target that is a voltage's, a shape's or a gate's.
 */
export function missText(target: Target, reading: Reading): MissText | null {
  if (!('quantity' in target) || target.quantity !== reading.quantity) return null;
  if (target.want === 'span') return spanMiss(target, judged(target, reading));
  if (target.want !== 'mean') return rangeMiss(target, judged(target, reading));
  const miss = reading.mean == null ? null : between(target.value, reading.mean, reading);
  if (!miss || miss.by === 0) return null;
  const amount = amountText(miss.by, miss.unit);
  return { says: `Average ${amount} too ${miss.by > 0 ? 'high' : 'low'}`, brief: `Off by ${amount}` };
}
