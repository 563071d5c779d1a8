import { PatchBuilder } from '../build';
import { further, otherPolarity, rangeAt, roundOf, set, swell } from '../chain';
import type { Skill } from '../types';

export const average: Skill = {
  name: 'average',
  group: 'range',
  text: 'Average of several voltages',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d);
    const { volts } = roundOf(level);
    const count = level < 3 ? 2 : level < 5 ? 3 : 4;
    const join = b.add('mixer', 'Join', { inputs: count, law: 'average' });
    b.plug(from, `${join}.in1`);
    for (let n = 2; n <= count; n++) {
      const held = b.add('constant', 'Tide', { volts: d.away(-5, 5, volts, 1), lowVolts: -5, highVolts: 5 });
      b.plug(`${held}.out`, `${join}.in${n}`);
    }
    const at = further(b, d, `${join}.out`, level, 2);
    return {
      patch: b.patch('Average'),
      text: 'Join averages the inputs in use. What range arrives at the meter?',
      at,
      answer: 'range',
      truth: rangeAt(at),
      slips: [
        { text: 'That adds the inputs: this mixer averages them.', edits: [set('join.law', 'sum')] },
        ...otherPolarity(b, from),
      ],
    };
  },
};
