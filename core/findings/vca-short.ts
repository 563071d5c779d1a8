import { socketAt } from '../document/sockets';
import { showDb, showNumber } from '../units/show';
import { cures, drivesOf, setCure, setParam } from './finding';
import { insertOffset } from './insert';
import type { FindingRule } from './finding';
import { gainAt, THRESHOLD_DB } from './gain';

/** A scaling stage amplifies no more than this. */
const MOST_GAIN = 4;

export const vcaShort: FindingRule = {
  code: 'vca-short',
  why: 'The control never reaches the voltage at which the amplifier is fully open, so the sound stays below its own level. An exponential response misses many decibels for a few volts.',
  when: 'the peak of an amplifier’s control stays more than 0.01 dB short of unity',
  cures: 'the amount that reaches unity, or a stage that amplifies to it',
  find(evidence) {
    return drivesOf(evidence).flatMap(({ m, low, high }) => {
      const peak = m.params.quadrants === 4 ? Math.max(high, -low) : high;
      const peakDb = gainAt(m, peak);
      if (peakDb !== null && peakDb >= -THRESHOLD_DB) return [];
      const [bias, unity, amount] = [m.params.bias, m.params.unityVolts, m.params.cvAmount].map(Number) as [
        number,
        number,
        number,
      ];
      const fitting = peak > bias ? (amount * (unity - bias)) / (peak - bias) : NaN;
      const alone = !m.inputs.find((s) => s.spec.name === 'cv2')?.connected && Number.isFinite(fitting);
      const gain = fitting / amount;
      const amplified =
        alone && Math.abs(fitting) > 1 && Math.abs(gain) <= MOST_GAIN
          ? insertOffset(evidence.graph, socketAt(m.id, 'cv'), 'Amplify', gain, 0)
          : [];
      return [
        {
          code: 'vca-short',
          severity: 'note' as const,
          at: socketAt(m.id, 'cv'),
          message:
            peakDb === null
              ? `${m.label} never opens: its control does not rise above zero.`
              : `${m.label} never opens fully: its peak gain is ${showDb(peakDb)}.`,
          numbers: { missingVolts: unity - peak, ...(peakDb !== null && { peakDb }) },
          ...(m.params.quadrants === 2 && {
            wanted: { at: socketAt(m.id, 'cv'), quantity: 'volts', low: null, high: unity },
          }),
          cures: cures(
            alone && Math.abs(fitting) <= 1
              ? setCure(`Amount to ${(100 * fitting).toFixed(1)} %`, setParam(m.id, 'cvAmount', fitting))
              : null,
            amplified.length > 0 ? setCure(`Amplify ${showNumber(gain, 2)} times`, ...amplified) : null,
          ),
        },
      ];
    });
  },
};
