import { set } from './chain';
import type { Seen } from './seen';
import type { Answer, Slip } from './types';

/** A gain of voltage taken as one of power. */
export const asPower: Slip = {
  text: 'That is dB of power: a gain of voltage has 20 for each tenfold.',
  as: (truth) => ('value' in truth ? { value: truth.value / 2 } : null),
};

/** Voltages at which amplifiers of different makes are fully open. */
const UNITIES: readonly number[] = [5, 8, 10];

/** Another of them taken as the one that opens an amplifier. @param told what that one is, said behind it. */
export const otherUnities = (at: string, unityVolts: number, told = ''): Slip[] =>
  UNITIES.filter((v) => v !== unityVolts).map((v) => ({
    text: `That takes ${v} V as fully open${told}.`,
    edits: [set(at, v)],
  }));

/** How much of the time a gate of 0 and 5 V is high, by its mean, percent; null where it hardly changes. */
export const highShare =
  (at: string) =>
  (seen: Seen): Answer | null => {
    const { mean } = seen.at(at);
    return mean === undefined || mean < 0.15 || mean > 4.85 ? null : { value: 20 * mean };
  };

/** The time that it is low, taken as that in which it is high. */
export const asLow: Slip = {
  text: 'That is how long it stays low.',
  as: (truth) => ('value' in truth ? { value: 100 - truth.value } : null),
};
