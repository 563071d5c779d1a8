import { PatchBuilder } from '../build';
import { further, otherPolarity, rangeAt, roundOf, set, swell } from '../chain';
import type { Skill } from '../types';

export const offset: Skill = {
  name: 'offset',
  group: 'range',
  text: 'Add an offset',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d);
    const { volts: step } = roundOf(level);
    const volts = d.away(-4, 4, step, step);
    const at = further(b, d, b.stage(from, 'offset', 'Shift', { volts }), level);
    return {
      patch: b.patch('Offset'),
      text: 'What range arrives at the meter?',
      at,
      answer: 'range',
      truth: rangeAt(at),
      slips: [
        { text: 'That forgets the offset.', edits: [set('shift.volts', 0)] },
        { text: 'That takes the offset away in place of adding it.', edits: [set('shift.volts', -volts)] },
        {
          text: 'That moves one end only: an offset moves both.',
          as: (truth) =>
            'low' in truth
              ? { low: volts > 0 ? truth.low - volts : truth.low, high: truth.high - (volts > 0 ? 0 : volts) }
              : null,
        },
        ...otherPolarity(b, from),
      ],
    };
  },
};
