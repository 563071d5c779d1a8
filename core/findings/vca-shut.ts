import { showVolts } from '../units/show';
import { drivesOf, setParam } from './finding';
import type { Cure, FindingRule } from './finding';

const THRESHOLD = -0.001;

export const vcaShut: FindingRule = {
  code: 'vca-shut',
  why: 'A two-quadrant amplifier answers to positive voltage only: below 0 V it is shut and that part of the movement is lost. Lift the control until its lowest point is still open.',
  when: 'the control of a two-quadrant amplifier falls below −1 mV',
  cures: 'bias up by the missing volts',
  find(evidence) {
    return drivesOf(evidence, 'vca')
      .filter(({ m, low }) => m.params.quadrants === 2 && low < THRESHOLD)
      .map(({ m, low, below }) => {
        const lift = Number(m.params.bias) - low;
        const cure: Cure | undefined =
          lift <= Number(m.params.biasHighVolts)
            ? { label: `Lift by ${showVolts(-low, false)}`, edits: [setParam(m.id, 'bias', lift)] }
            : undefined;
        const share = evidence.simulation
          ? `shut for ${(100 * below).toFixed(0)} % of the time`
          : 'shut for part of the time';
        return {
          code: 'vca-shut',
          severity: 'error' as const,
          at: `${m.id}.cv`,
          message: `${m.label} is ${share}: its control falls ${showVolts(-low, false)} below zero, where this amplifier stays silent.`,
          numbers: { shutPercent: 100 * below, missingVolts: -low },
          ...(cure && { cure }),
        };
      });
  },
};
