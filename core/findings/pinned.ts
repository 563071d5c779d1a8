import { drivesOf } from './finding';
import type { FindingRule } from './finding';

const SHARE = 0.001;

export const pinned: FindingRule = {
  code: 'pinned',
  when: 'a destination’s sum is beyond an end of its range for more than 0.1 % of the time',
  find(evidence) {
    return drivesOf(evidence, 'parameter')
      .filter(({ below, above }) => below + above > SHARE)
      .map(({ m, below, above }) => ({
        code: 'pinned',
        severity: 'warning' as const,
        at: `${m.id}.cv`,
        message: `${m.label} sticks at its ends: ${(100 * below).toFixed(1)} % of the time at the bottom, ${(100 * above).toFixed(1)} % at the top. Its own knob and its voltages add up.`,
        numbers: { pinnedLowPercent: 100 * below, pinnedHighPercent: 100 * above },
      }));
  },
};
