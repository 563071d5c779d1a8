import { PatchBuilder } from '../build';
import { rangeAt, roundOf, swell } from '../chain';
import type { Skill } from '../types';

export const normalActs: Skill = {
  name: 'normal',
  group: 'electrical',
  text: 'A normal that still acts',
  draw(d, level) {
    const b = new PatchBuilder();
    const { volts: step, share } = roundOf(level);
    const from = swell(b, d);
    const volts = d.away(-5, 5, step, 1);
    const gain2 = d.number(0.2, 1, share / 2);
    const join = b.add('mixer', 'Join', { inputs: 2, gain1: d.number(0.3, 1, share), gain2 });
    b.plug(from, `${join}.in1`).normal(`${join}.in2`, { volts });
    const at = `${join}.out`;
    return {
      patch: b.patch('A normal that acts'),
      text: `Nothing is plugged into in 2 of Join: it is normalled to ${volts} V. What range arrives at the meter?`,
      at,
      answer: 'range',
      truth: rangeAt(at),
      slips: [
        {
          text: 'That forgets the normal: an empty input is not silent.',
          edits: [{ do: 'normal', to: `${join}.in2`, normal: { to: `${join}.in2`, volts: 0 } }],
        },
        {
          text: 'That takes the normal at full: its level knob scales it too.',
          as: (truth) =>
            'low' in truth ? { low: truth.low + (1 - gain2) * volts, high: truth.high + (1 - gain2) * volts } : null,
        },
      ],
    };
  },
};
