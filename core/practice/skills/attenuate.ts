import { PatchBuilder } from '../build';
import { further, otherPolarity, rangeAt, roundOf, set, swell } from '../chain';
import type { Skill } from '../types';

export const attenuate: Skill = {
  name: 'attenuate',
  group: 'range',
  text: 'Attenuate a voltage',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d);
    const amount = d.number(0.2, 0.9, level === 1 ? 0.1 : roundOf(level).share / 2);
    const first = b.stage(from, 'attenuator', 'Dim', { amount });
    const at = further(b, d, first, level);
    return {
      patch: b.patch('Attenuate'),
      text: 'What range arrives at the meter?',
      at,
      answer: 'range',
      truth: rangeAt(at),
      slips: [
        { text: 'That is without the attenuator.', edits: [set('dim.amount', 1)] },
        { text: 'That takes away what the attenuator lets through.', edits: [set('dim.amount', 1 - amount)] },
        ...otherPolarity(b, from),
      ],
    };
  },
};
