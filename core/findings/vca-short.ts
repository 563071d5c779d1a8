import { showDb, showNumber } from '../units/show';
import { amountCure, amplifiersOf, cures, fittingAmount, setCure } from './finding';
import { insertOffset } from './insert';
import type { FindingRule, Found } from './finding';
import { gainAt, THRESHOLD_DB } from './gain';

/** A scaling stage amplifies no more than this. */
const MOST_GAIN = 4;

export const vcaShort: FindingRule = {
  code: 'vca-short',
  why: 'The control never reaches the voltage at which the amplifier is fully open, so the sound stays below its own level. An exponential response misses many decibels for a few volts.',
  when: 'the peak of an amplifier’s control stays more than 0.01 dB short of unity',
  cures: 'the amount that reaches unity, or a stage that amplifies to it',
  find(evidence) {
    return amplifiersOf(evidence).flatMap((amp): Found[] => {
      const { m, at, peak, bias, unityVolts, amount, bothSigns } = amp;
      const peakDb = gainAt(m, peak);
      if (peakDb !== null && peakDb >= -THRESHOLD_DB) return [];
      const fitting = peak > bias ? fittingAmount(amp) : NaN;
      const alone = amp.alone && Number.isFinite(fitting);
      const gain = fitting / amount;
      const amplified =
        alone && Math.abs(fitting) > 1 && Math.abs(gain) <= MOST_GAIN
          ? insertOffset(evidence.graph, at, 'Amplify', gain, 0)
          : [];
      return [
        {
          code: 'vca-short',
          severity: 'note',
          at,
          message:
            peakDb === null
              ? `${m.label} never opens: its control does not rise above zero.`
              : `${m.label} never opens fully: its peak gain is ${showDb(peakDb)}.`,
          numbers: { missingVolts: unityVolts - peak, ...(peakDb !== null && { peakDb }) },
          ...(!bothSigns && { wanted: { at, quantity: 'volts', low: null, high: unityVolts } }),
          cures: cures(
            alone && Math.abs(fitting) <= 1 ? amountCure(amp, fitting) : null,
            amplified.length > 0 ? setCure(`Amplify ${showNumber(gain, 2)} times`, ...amplified) : null,
          ),
        },
      ];
    });
  },
};
