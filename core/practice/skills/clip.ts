import { PatchBuilder } from '../build';
import { roundOf, set, swell } from '../chain';
import type { Skill } from '../types';

export const clip: Skill = {
  name: 'clip',
  group: 'range',
  text: 'Clip at a rail',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d, [
      [-5, 5],
      [-4, 4],
      [0, 8],
    ]);
    const { volts: step } = roundOf(level);
    const railVolts = d.pick([10, 11, 12]);
    const amount = d.number(1, 2.5, level < 3 ? 0.5 : 0.25);
    const volts = d.away(-6, 6, step, 2);
    const at = b.stage(from, 'offset', 'Push', { maxAmount: 4, amount, volts, lowVolts: -8, highVolts: 8 });
    return {
      patch: b.patch('Clip', { railVolts }),
      text: `The rails of this rack are at ±${railVolts} V. What range arrives at the meter?`,
      at,
      answer: 'range',
      truth: (seen) => {
        const [low, high] = seen.range(at);
        const clipped = seen.clipped(at);
        return clipped > 0.02 && clipped < 0.9 ? { low, high } : null;
      },
      slips: [
        {
          text: 'That is beyond the rails: no output gets there.',
          as: (_, seen) => {
            const [low, high] = seen.range(from);
            return { low: amount * low + volts, high: amount * high + volts };
          },
        },
        { text: 'That forgets the offset.', edits: [set('push.volts', 0)] },
      ],
    };
  },
};
