import { PatchBuilder } from '../build';
import { further, rangeAt, roundOf, set, swell } from '../chain';
import type { Skill } from '../types';

export const rectify: Skill = {
  name: 'rectify',
  group: 'range',
  text: 'Rectify',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d, [
      [-5, 5],
      [-4, 4],
    ]);
    const { volts: step } = roundOf(level);
    const shifted = level === 1 ? from : b.stage(from, 'offset', 'Shift', { volts: d.away(-3, 3, step, step) });
    const mode = d.pick(['full', 'positive', 'negative'] as const);
    const at = further(b, d, b.stage(shifted, 'rectifier', 'Half', { mode }), level, 2);
    const others = (['full', 'positive', 'negative'] as const).filter((m) => m !== mode);
    const words = {
      full: 'folds up what is below 0 V',
      positive: 'keeps what is above 0 V',
      negative: 'keeps what is below 0 V',
    };
    return {
      patch: b.patch('Rectify'),
      text: `Half ${words[mode]}. What range arrives at the meter?`,
      at,
      answer: 'range',
      truth: rangeAt(at),
      slips: [
        ...others.map((m) => ({ text: `That is a rectifier that ${words[m]}.`, edits: [set('half.mode', m)] })),
        {
          text: 'That is without the rectifier.',
          as: (_, seen) => {
            const [low, high] = seen.range(shifted);
            return at === 'half.out' ? { low, high } : null;
          },
        },
      ],
    };
  },
};
