import { showDb, showVolts } from '../units/show';
import { amountCure, amplifiersOf, fittingAmount } from './amplifiers';
import { cures, setCure, setParam } from './finding';
import type { FindingRule, Found } from './finding';
import { gainAt, THRESHOLD_DB } from './gain';

export const vcaOver: FindingRule = {
  code: 'vca-over',
  title: 'VCA above unity',
  why: 'Above its unity voltage the VCA keeps amplifying: first louder than the input, then clipping. Reduce the CV until its peak is just fully open.',
  when: 'the control voltage of a VCA with a signal at its input can exceed unity gain by more than 0.01 dB, wherever its faders stand',
  cures: 'sets the CV amount or bias that peaks at unity',
  find(evidence) {
    return amplifiersOf(evidence).flatMap((amp): Found[] => {
      const { m, spec, at, above, peak, byFader, bias, biasRange, unityVolts, amount, alone, bothSigns } = amp;
      const peakDb = gainAt(m, peak);
      if (peakDb === null || peakDb <= THRESHOLD_DB) return [];
      const fitting = fittingAmount(amp);
      const fits = alone && Math.abs(fitting) <= 1 && fitting * amount > 0;
      const lower = bias - (peak - unityVolts);
      const share = byFader
        ? ' with its fader moved'
        : evidence.simulation
          ? ` ${(100 * above).toFixed(0)}% of the time`
          : '';
      return [
        {
          code: 'vca-over',
          severity: 'warning',
          at,
          message: `${m.label} goes above unity gain${share}: it peaks at +${showDb(peakDb)}.`,
          numbers: { peakDb, overPercent: 100 * above },
          ...(!bothSigns && { wanted: { at, quantity: 'volts', low: null, high: unityVolts } }),
          cures: cures(
            fits ? amountCure(amp, fitting) : null,
            lower >= biasRange[0] ? setCure(`Set bias to ${showVolts(lower)}`, setParam(m.id, spec.bias, lower)) : null,
          ),
        },
      ];
    });
  },
};
