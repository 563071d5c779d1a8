import { idOf } from '../document/sockets';
import type { PatchBuilder } from './build';
import type { Draws } from './draws';
import type { Answer, Level, Slip } from './types';
import type { Seen } from './seen';

/** How round figures are, by level: volts, and shares of a knob. */
const ROUND: Readonly<Record<Level, { readonly volts: number; readonly share: number }>> = {
  1: { volts: 1, share: 0.5 },
  2: { volts: 1, share: 0.25 },
  3: { volts: 0.5, share: 0.2 },
  4: { volts: 0.5, share: 0.1 },
  5: { volts: 0.25, share: 0.05 },
};
export const roundOf = (level: Level): { readonly volts: number; readonly share: number } => ROUND[level];

const SPANS = [
  [-5, 5],
  [0, 8],
  [0, 5],
  [-4, 4],
  [0, 10],
] as const;

/** A slow oscillator over a usual span. @returns its output. */
export function swell(b: PatchBuilder, d: Draws, spans: readonly (readonly [number, number])[] = SPANS): string {
  const [lowVolts, highVolts] = d.pick(spans);
  const id = b.add('lfo', 'Swell', { rateHz: 0.5, shape: d.pick(['triangle', 'sine']), lowVolts, highVolts });
  return `${id}.out`;
}

/** Other stages on the way, so many more as a level asks. @returns the last output. */
export function further(b: PatchBuilder, d: Draws, from: string, level: Level, beside = 1): string {
  let at = from;
  const { volts, share } = roundOf(level);
  for (let n = beside; n < level; n++) {
    const sort = d.pick(['trim', 'flip', 'lift'] as const);
    if (sort === 'flip') at = b.stage(at, 'inverter', 'Flip');
    else if (sort === 'lift') at = b.stage(at, 'offset', 'Lift', { volts: d.away(-2, 2, volts, volts) });
    else at = b.stage(at, 'attenuverter', 'Trim', { amount: d.away(-1, 1, share, 0.3) });
  }
  return at;
}

/** Least that a range must move by to be worth asking about, volts. */
const MOVES = 0.5;

/** The range that arrives at a socket; null where it hardly moves or clips there. */
export const rangeAt =
  (at: string) =>
  (seen: Seen): Answer | null => {
    const [low, high] = seen.range(at);
    return high - low < MOVES || seen.clipped(at) > 0 ? null : { low, high };
  };

/** One figure of the voltage at a socket. */
export const voltsAt =
  (at: string, figure: 'low' | 'high' | 'peakToPeak' | 'mean' | 'rms') =>
  (seen: Seen): Answer | null => {
    const [low, high] = seen.range(at);
    const { mean, rms } = seen.at(at);
    const value = { low, high, peakToPeak: high - low, mean, rms }[figure];
    return value === undefined ? null : { value };
  };

/** What a destination reads at the end of its drive; null where it is silent. */
export const readingAt =
  (at: string, end: 'low' | 'high', quantity?: string) =>
  (seen: Seen): Answer | null => {
    const reading = seen.reading(at, quantity);
    const value = end === 'low' ? reading?.arrivesLow : reading?.arrivesHigh;
    return value === null || value === undefined ? null : { value };
  };

/** The other range of a source: what is bipolar taken for unipolar, and the other way round. */
export function otherPolarity(b: PatchBuilder, from: string): Slip[] {
  const params = b.paramsOf(idOf(from));
  const [low, high] = [Number(params.lowVolts ?? -5), Number(params.highVolts ?? 5)];
  const module = idOf(from);
  if (low === -high)
    return [
      {
        text: 'That takes the source as unipolar, from 0 V up. It goes below 0 V too.',
        edits: [{ do: 'set', module, param: 'lowVolts', value: 0 }],
      },
    ];
  return [
    {
      text:
        low < 0
          ? 'That takes the source as going as far down as up.'
          : 'That takes the source as bipolar. It never goes below 0 V.',
      edits: [{ do: 'set', module, param: 'lowVolts', value: -high }],
    },
  ];
}

export const set = (at: string, value: number | string | boolean) =>
  ({ do: 'set', module: idOf(at), param: at.slice(idOf(at).length + 1), value }) as const;
