import { socketAt } from '../document/sockets';
import { showDb, showVolts } from '../units/show';
import { cures, drivesOf, setCure, setParam } from './finding';
import type { FindingRule } from './finding';
import { gainAt, THRESHOLD_DB } from './gain';

export const vcaOver: FindingRule = {
  code: 'vca-over',
  why: 'Above its fully open voltage an amplifier goes on amplifying: louder than unity, and soon clipped. Shrink the control until its peak is just full.',
  when: 'the control of an amplifier can go over unity by more than 0.01 dB',
  cures: 'the amount that peaks at unity',
  find(evidence) {
    return drivesOf(evidence).flatMap(({ m, low, high, above }) => {
      const peak = m.params.quadrants === 4 ? Math.max(high, -low) : high;
      const peakDb = gainAt(m, peak);
      if (peakDb === null || peakDb <= THRESHOLD_DB) return [];
      const [bias, unity, amount] = [m.params.bias, m.params.unityVolts, m.params.cvAmount].map(Number) as [
        number,
        number,
        number,
      ];
      // Exact while the amount scales all that comes on top of the bias.
      const fitting = peak === bias ? NaN : (amount * (unity - bias)) / (peak - bias);
      const alone =
        !m.inputs.find((s) => s.spec.name === 'cv2')?.connected && Math.abs(fitting) <= 1 && fitting * amount > 0;
      const lower = bias - (peak - unity);
      const share = evidence.simulation ? `, for ${(100 * above).toFixed(0)} % of the time` : '';
      return [
        {
          code: 'vca-over',
          severity: 'warning' as const,
          at: socketAt(m.id, 'cv'),
          message: `${m.label} opens beyond unity${share}: its peak gain is ${showDb(peakDb)}.`,
          numbers: { peakDb, overPercent: 100 * above },
          ...(m.params.quadrants === 2 && {
            wanted: { at: socketAt(m.id, 'cv'), quantity: 'volts', low: null, high: unity },
          }),
          cures: cures(
            alone ? setCure(`Amount to ${(100 * fitting).toFixed(1)} %`, setParam(m.id, 'cvAmount', fitting)) : null,
            lower >= Number(m.params.biasLowVolts)
              ? setCure(`Bias to ${showVolts(lower)}`, setParam(m.id, 'bias', lower))
              : null,
          ),
        },
      ];
    });
  },
};
