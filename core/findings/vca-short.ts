import { showDb, showNumber } from '../units/show';
import { amountCure, amplifiersOf, fittingAmount } from './amplifiers';
import { cures, setCure } from './finding';
import { insertOffset } from './insert';
import type { FindingRule, Found } from './finding';
import { gainAt, THRESHOLD_DB } from './gain';

/** A scaling stage amplifies no more than this. */
const MOST_GAIN = 4;

export const vcaShort: FindingRule = {
  code: 'vca-short',
  title: 'VCA never reaches unity',
  why: 'The CV never reaches the voltage at which the VCA is fully open, so the sound stays quieter than it went in. With an exponential response, a few volts short costs many decibels.',
  when: 'the peak of the control voltage of a VCA with a signal at its input stays more than 0.01 dB below unity gain, wherever its faders stand',
  cures: 'sets the CV amount that reaches unity, or adds a gain stage',
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
          ? insertOffset(evidence.graph, at, 'Gain', gain, 0)
          : [];
      return [
        {
          code: 'vca-short',
          severity: 'note',
          at,
          message:
            peakDb === null
              ? `${m.label} never opens: its control voltage never rises above 0 V.`
              : `${m.label} never reaches unity gain: it peaks at ${showDb(peakDb)}.`,
          numbers: { missingVolts: unityVolts - peak, ...(peakDb !== null && { peakDb }) },
          ...(!bothSigns && { wanted: { at, quantity: 'volts', low: null, high: unityVolts } }),
          cures: cures(
            alone && Math.abs(fitting) <= 1 ? amountCure(amp, fitting) : null,
            amplified.length > 0 ? setCure(`Add ×${showNumber(gain, 2)} gain`, ...amplified) : null,
          ),
        },
      ];
    });
  },
};
