import { PatchBuilder } from '../build';
import { further, otherPolarity, rangeAt, roundOf, set, swell } from '../chain';
import type { Skill } from '../types';

export const sumOfTwo: Skill = {
  name: 'sum',
  group: 'range',
  text: 'Sum of two voltages',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d);
    const { volts, share } = roundOf(level);
    const beside = level < 3;
    // Free oscillators meet everywhere in the end: what can arrive is the sum of both.
    const second = beside
      ? `${b.add('constant', 'Tide', { volts: d.away(-3, 3, volts, volts), lowVolts: -5, highVolts: 5 })}.out`
      : `${b.add('lfo', 'Ripple', { rateHz: 1.37, lowVolts: -d.number(1, 2, volts), highVolts: d.number(1, 3, volts) })}.out`;
    const join = b.add('mixer', 'Join', {
      inputs: 2,
      gain1: d.number(0.2, 1, share / 2),
      gain2: d.number(0.4, 1, share),
    });
    b.plug(from, `${join}.in1`).plug(second, `${join}.in2`);
    const at = further(b, d, `${join}.out`, level, 2);
    return {
      patch: b.patch('Sum of two'),
      text: 'What range arrives at the meter?',
      at,
      answer: 'range',
      truth: rangeAt(at),
      slips: [
        { text: 'That averages: this mixer adds.', edits: [set('join.law', 'average')] },
        { text: 'That is the first input alone.', edits: [set('join.gain2', 0)] },
        {
          text: 'That adds both inputs with their levels at full.',
          edits: [set('join.gain1', 1), set('join.gain2', 1)],
        },
        ...otherPolarity(b, from),
      ],
    };
  },
};
