import { PatchBuilder } from '../build';
import { roundOf, set } from '../chain';
import { asLow, highShare } from '../slips';
import type { Skill } from '../types';

export const windowPercent: Skill = {
  name: 'window-percent',
  group: 'units',
  text: 'Percent of a cycle above a threshold',
  draw(d, level) {
    const b = new PatchBuilder();
    const { volts: step } = roundOf(level);
    const [lowVolts, highVolts] = d.pick([
      [-5, 5],
      [0, 8],
      [0, 10],
    ] as const);
    const shape = level < 3 ? 'triangle' : d.pick(['triangle', 'sine', 'rampUp'] as const);
    const slow = b.add('lfo', 'Swell', { rateHz: 1, shape, lowVolts, highVolts });
    const thresholdVolts = d.number(lowVolts + 1, highVolts - 1, step);
    const gate = b.add('comparator', 'Window', { thresholdVolts, hysteresis: 0 });
    b.plug(`${slow}.out`, `${gate}.in`);
    const at = `${gate}.out`;
    return {
      patch: b.patch('Percent above a threshold', { duration: 4, sampleRate: 8000 }),
      text: `The gate is high from ${thresholdVolts} V on. For how much of the time?`,
      at,
      answer: 'unit',
      unit: '%',
      figure: 'percent',
      truth: highShare(at),
      slips: [
        asLow,
        {
          text: 'That is where the threshold lies in the range, not what lies above it.',
          as: () => ({ value: (100 * (thresholdVolts - lowVolts)) / (highVolts - lowVolts) }),
        },
        { text: 'That takes the wave as a triangle.', edits: [set('swell.shape', 'triangle')] },
        {
          text: 'That counts from 0 V.',
          edits: [set('swell.lowVolts', 0)],
        },
      ],
    };
  },
};
