import { PatchBuilder } from '../build';
import { set } from '../chain';
import { tracesToChoose } from '../traces';
import type { Skill } from '../types';

export const sumOfShapes: Skill = {
  name: 'sum-of-shapes',
  group: 'shape',
  text: 'Sum of two shapes',
  draw(d, level) {
    const b = new PatchBuilder();
    const first = b.add('lfo', 'Swell', {
      rateHz: 0.25,
      shape: d.pick(['triangle', 'sine', 'rampUp']),
      lowVolts: -3,
      highVolts: 3,
    });
    const second = b.add('lfo', 'Ripple', {
      rateHz: d.pick(level < 3 ? [1] : [0.75, 1, 1.5]),
      shape: d.pick(level < 3 ? ['pulse'] : ['pulse', 'triangle', 'rampDown']),
      lowVolts: 0,
      highVolts: 3,
    });
    const gain2 = level < 3 ? 1 : d.away(-1, 1, 0.25, 0.5);
    const join = b.add('mixer', 'Join', { inputs: 2, gain2, bipolar: true });
    b.plug(`${first}.out`, `${join}.in1`).plug(`${second}.out`, `${join}.in2`);
    const found = tracesToChoose(d, b.patch('Sum of two shapes'), `${join}.out`, [
      { text: 'That takes the second away.', edits: [set('join.gain2', -gain2)] },
      { text: 'That takes the second as bipolar.', edits: [set('ripple.lowVolts', -3)] },
      { text: 'That averages.', edits: [set('join.law', 'average')] },
      { text: 'That is the first alone.', edits: [set('join.gain2', 0)] },
      { text: 'That is the second alone.', edits: [set('join.gain1', 0)] },
    ]);
    return found && { ...found, text: 'Which of these is the sum?' };
  },
};
