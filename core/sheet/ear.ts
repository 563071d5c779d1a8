import type { Reading } from '../answers/readings';
import { showQuantity, showSeconds } from '../units/show';

/** What low and high figures sound like. */
const WORDS: Readonly<Record<string, readonly [string, string]>> = {
  frequency: ['dark', 'bright'],
  gain: ['quiet', 'loud'],
  position: ['one side', 'the other'],
  time: ['short', 'long'],
  rate: ['slow', 'fast'],
  width: ['narrow', 'wide'],
};

/** A figure with its note where it is a pitch, else with what it sounds like. */
function told(value: number | null, unit: string, note: string | undefined, word: string | undefined): string {
  if (value === null) return 'silence';
  const figure = showQuantity(value, unit);
  const more = note ?? word;
  return more ? `${figure} (${more})` : figure;
}

/** What will be heard where a destination is driven. */
export function earOf(reading: Reading, audible: boolean, period: number | null): string {
  const [low, high] = [reading.arrivesLow, reading.arrivesHigh];
  const words = WORDS[reading.quantity];
  const [lowNote, highNote] = audible ? [reading.lowNote, reading.highNote] : [undefined, undefined];
  const silent = low === null;
  const from = told(low, reading.unit, lowNote, words?.[0]);
  const to = told(high, reading.unit, highNote, words?.[1]);
  const shut = reading.shutPercent ?? 0;
  const gap =
    shut > 0.5 && period !== null
      ? `; silent for ${showSeconds((shut / 100) * period)} of every ${showSeconds(period)}`
      : '';
  return `${low === high && !silent ? `constant ${told(high, reading.unit, highNote, undefined)}` : `${from} to ${to}`}${gap}`;
}
