import { PatchBuilder } from '../build';
import { further, otherPolarity, rangeAt, roundOf, set, swell } from '../chain';
import type { Skill } from '../types';

export const invert: Skill = {
  name: 'invert',
  group: 'range',
  text: 'Invert with an attenuverter',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d, [
      [0, 8],
      [0, 5],
      [0, 10],
      [-2, 6],
    ]);
    const amount = -d.number(0.2, 1, level === 1 ? 0.1 : roundOf(level).share / 2);
    const at = further(b, d, b.stage(from, 'attenuverter', 'Turn', { amount }), level);
    return {
      patch: b.patch('Invert'),
      text: 'What range arrives at the meter?',
      at,
      answer: 'range',
      truth: rangeAt(at),
      slips: [
        { text: 'That forgets the sign: below noon an attenuverter inverts.', edits: [set('turn.amount', -amount)] },
        { text: 'That inverts without scaling.', edits: [set('turn.amount', -1)] },
        ...otherPolarity(b, from),
      ],
    };
  },
};
