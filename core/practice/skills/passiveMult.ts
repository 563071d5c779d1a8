import { PatchBuilder } from '../build';
import type { Skill } from '../types';

export const passiveMult: Skill = {
  name: 'passive-mult',
  group: 'electrical',
  text: 'A passive mult',
  draw(d, level) {
    const b = new PatchBuilder();
    const volts = d.pick(level < 3 ? [10, 5] : [2, 3, 4, 5, 8]);
    const ohms = d.pick([1000, 2000, 4700, 10_000]);
    const count = level < 3 ? 2 : level < 5 ? 3 : 4;
    const into = d.pick([47_000, 50_000, 100_000]);
    const held = b.add('constant', 'Tide', { volts, lowVolts: 0, highVolts: 10 }, { outputOhms: { out: ohms } });
    const mult = b.add('mult', 'Split', { build: 'passive' });
    b.plug(`${held}.out`, `${mult}.in`);
    const ends = Array.from({ length: count }, (_, n) => {
      const lift = b.add('offset', 'Lift', {}, { inputOhms: { in: into } });
      b.plug(`${mult}.out${n + 1}`, `${lift}.in`);
      return `${lift}.in`;
    });
    const [at = ''] = ends;
    const under = (load: number): number => (volts * load) / (load + ohms);
    return {
      patch: b.patch('Passive mult'),
      text: `An output of ${volts} V behind ${ohms / 1000} kΩ feeds ${count} inputs of ${into / 1000} kΩ through a passive mult. Which voltage arrives?`,
      at,
      answer: 'volts',
      figure: 'steady',
      hidden: ends,
      truth: (seen) => ({ value: seen.range(at)[0] }),
      slips: [
        { text: 'That is without any load.', as: () => ({ value: volts }) },
        { text: 'That counts one input only: all of them load the output.', as: () => ({ value: under(into) }) },
        {
          text: 'That takes the inputs in series: side by side they load more than one.',
          as: () => ({ value: under(into * count) }),
        },
        { text: 'That shares the voltage out: every copy has all of it.', as: () => ({ value: volts / count }) },
      ],
    };
  },
};
