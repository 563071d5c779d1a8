import { PatchBuilder } from '../build';
import { further, otherPolarity, rangeAt, roundOf, set, swell } from '../chain';
import type { Skill } from '../types';

export const gainAndOffset: Skill = {
  name: 'gain-offset',
  group: 'range',
  text: 'Gain and offset, in either order',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d);
    const { volts: step, share } = roundOf(level);
    const [amount, volts] = [d.away(-0.9, 0.9, level === 1 ? 0.1 : share / 2, 0.2), d.away(-4, 4, step, step)];
    const order = d.pick(['scaleThenShift', 'shiftThenScale'] as const);
    const at = further(b, d, b.stage(from, 'offset', 'Both', { amount, volts, order }), level);
    return {
      patch: b.patch('Gain and offset'),
      text:
        order === 'scaleThenShift'
          ? 'Both scales first, then adds its offset. What range arrives at the meter?'
          : 'Both adds its offset first, then scales. What range arrives at the meter?',
      at,
      answer: 'range',
      truth: rangeAt(at),
      slips: [
        order === 'scaleThenShift'
          ? {
              text: 'That adds the offset before the gain; here it comes after.',
              edits: [set('both.order', 'shiftThenScale')],
            }
          : {
              text: 'That adds the offset after the gain; here the gain scales it too.',
              edits: [set('both.order', 'scaleThenShift')],
            },
        { text: 'That forgets the sign of the gain.', edits: [set('both.amount', -amount)] },
        { text: 'That forgets the offset.', edits: [set('both.volts', 0)] },
        ...otherPolarity(b, from),
      ],
    };
  },
};
