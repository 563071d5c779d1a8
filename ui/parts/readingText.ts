import { useStore } from 'zustand';
import { gainOf, guaranteedApart, showNumber, showQuantity, showRange, withUnit } from '@/core';
import type { Prediction, Reading } from '@/core';
import { USUAL } from '@/wire/usual';
import type { Preferences } from '@/wire/preferences';
import { settings } from './settings';

/** In which units figures are told. */
export type Units = Pick<Preferences, 'pitches' | 'gains'>;

/** The units that are preferred. */
export function useUnits(): Units {
  const pitches = useStore(settings, (s) => s.pitches);
  const gains = useStore(settings, (s) => s.gains);
  return { pitches, gains };
}

const isPitch = ({ quantity, unit }: Reading): boolean =>
  unit === 'Hz' && (quantity === 'frequency' || quantity === 'pitch');

/** `A3 to E5 +12 ct`; null where it has none. */
function notesText({ lowNote, highNote }: Reading): string | null {
  if (lowNote === undefined || highNote === undefined) return null;
  const [low, high] = [lowNote, highNote].map((note) => note.replaceAll(' ', '\u00a0')) as [string, string];
  return low === high ? low : `${low} to ${high}`;
}

/** A gain as a share of unity, in percent. */
function sharesText({ arrivesLow, arrivesHigh }: Reading): string {
  const [low, high] = [arrivesLow, arrivesHigh].map((db) => (db === null ? 0 : 100 * gainOf(db))) as [number, number];
  return showRange(low, high, '%');
}

/** A reading in one line: what arrives, in its own unit. */
export function readingText(r: Reading, { pitches, gains }: Units = USUAL): string {
  if (pitches === 'notes' && isPitch(r)) return notesText(r) ?? rangeText(r);
  if (gains === 'percent' && r.quantity === 'gain' && r.unit === 'dB') return sharesText(r);
  return rangeText(r);
}

function rangeText(r: Reading): string {
  if (r.quantity === 'pulses') return pulsesText(r);
  if (r.quantity === 'level') return levelText(r);
  return showRange(r.arrivesLow, r.arrivesHigh, r.unit);
}

function pulsesText({ always, low, unit, atRest }: Reading): string {
  if (always === 'low') return atRest ? 'Low at rest' : 'Never high';
  if (always === 'high') return atRest ? 'High at rest' : 'Always high';
  return low === null ? 'Pulses' : `${showQuantity(low, unit)} (simulated)`;
}

/** One figure as a meter reads it; without a simulation the guaranteed peak alone. */
function levelText({ low, silent, peakHigh, unit }: Reading): string {
  if (low !== null || silent) return showQuantity(low, unit);
  return peakHigh == null ? '–' : `peak ${showQuantity(peakHigh, unit)}`;
}

/** What a further reading is called. */
const LABELS: Readonly<Record<string, string>> = {
  gain: 'Gain',
  gainA: 'Gain A',
  gainB: 'Gain B',
  factor: 'Factor',
  rate: 'Rate',
  pitch: 'Pitch',
};

export const quantityLabel = (quantity: string): string => LABELS[quantity] ?? quantity;

/** The further readings of a destination, a line each. */
export const furtherText = (readings: readonly Reading[], at: string, units?: Units): readonly string[] =>
  readings.filter((r) => r.at === at && r.further).map((r) => `${quantityLabel(r.quantity)} ${readingText(r, units)}`);

/** What a patch adds of its own at a line output, a line each. */
export function noiseText(noise: NonNullable<Prediction['noise']>[string] | undefined): readonly string[] {
  if (!noise || noise.playingDbu === null) return [];
  const { restDbu, playingDbu, signalToNoiseDb } = noise;
  const apart = restDbu === null || Math.abs(restDbu - playingDbu) >= 0.5;
  return [
    `noise ${showQuantity(playingDbu, 'dBu')}${apart ? `, ${showQuantity(restDbu, 'dBu')} at rest` : ''}`,
    ...(signalToNoiseDb === null ? [] : [`signal to noise ${showQuantity(signalToNoiseDb, 'dB')}`]),
  ];
}

const percent = (share: number): string => withUnit(showNumber(share, share < 10 ? 1 : 0), '%');

/** What else is to be said of it, a line each: what can never be left, how long beyond its window or high, how far from line levels. */
export function readingMore(r: Reading, { pitches }: Units = USUAL): readonly string[] {
  const [below, above] = [r.pinnedLowPercent ?? 0, r.pinnedHighPercent ?? 0];
  const from = (db: number | undefined, than: string): string | false =>
    db !== undefined && `${withUnit(showNumber(Math.abs(db), 1), 'dB')} ${db < 0 ? 'below' : 'above'} ${than}`;
  return [
    pitches === 'notes' && isPitch(r) && notesText(r) !== null && rangeText(r),
    r.fadersHigh !== undefined &&
      `at rest; ${showRange(r.fadersLow ?? null, r.fadersHigh, r.unit)} over its faders’ travel`,
    guaranteedApart(r) && `guaranteed range ${showRange(r.low, r.high, r.unit)}`,
    below > 0 && `below range ${percent(below)} of the time`,
    above > 0 && `above range ${percent(above)} of the time`,
    r.highPercent !== undefined && r.always === null && `high ${percent(r.highPercent)} of the time`,
    r.low !== null && r.peakHigh != null && `peak no higher than ${showQuantity(r.peakHigh, r.unit)}`,
    from(r.overStudioDb, '+4 dBu'),
    from(r.overHomeDb, '−10 dBV'),
  ].filter((line): line is string => line !== false);
}
