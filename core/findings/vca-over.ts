import { showDb, showVolts } from '../units/show';
import { amountCure, amplifiersOf, cures, fittingAmount, setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';
import { gainAt, THRESHOLD_DB } from './gain';

export const vcaOver: FindingRule = {
  code: 'vca-over',
  why: 'Above its fully open voltage an amplifier goes on amplifying: louder than unity, and soon clipped. Shrink the control until its peak is just full.',
  when: 'the control of an amplifier can go over unity by more than 0.01 dB',
  cures: 'the amount that peaks at unity',
  find(evidence) {
    return amplifiersOf(evidence).flatMap((amp): Found[] => {
      const { m, spec, at, above, peak, bias, biasRange, unityVolts, amount, alone, bothSigns } = amp;
      const peakDb = gainAt(m, peak);
      if (peakDb === null || peakDb <= THRESHOLD_DB) return [];
      const fitting = fittingAmount(amp);
      const fits = alone && Math.abs(fitting) <= 1 && fitting * amount > 0;
      const lower = bias - (peak - unityVolts);
      const share = evidence.simulation ? `, for ${(100 * above).toFixed(0)} % of the time` : '';
      return [
        {
          code: 'vca-over',
          severity: 'warning',
          at,
          message: `${m.label} opens beyond unity${share}: its peak gain is ${showDb(peakDb)}.`,
          numbers: { peakDb, overPercent: 100 * above },
          ...(!bothSigns && { wanted: { at, quantity: 'volts', low: null, high: unityVolts } }),
          cures: cures(
            fits ? amountCure(amp, fitting) : null,
            lower >= biasRange[0] ? setCure(`Bias to ${showVolts(lower)}`, setParam(m.id, spec.bias, lower)) : null,
          ),
        },
      ];
    });
  },
};
