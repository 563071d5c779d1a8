import { PatchBuilder } from '../build';
import { set } from '../chain';
import type { Skill } from '../types';

export const passiveLoad: Skill = {
  name: 'passive-load',
  group: 'electrical',
  text: 'A passive attenuator under load',
  draw(d, level) {
    const b = new PatchBuilder();
    const volts = d.pick(level < 3 ? [10] : [4, 5, 8, 10]);
    const amount = level < 3 ? 0.5 : d.number(0.2, 0.8, level < 5 ? 0.1 : 0.05);
    const potOhms = d.pick([50_000, 100_000, 250_000]);
    const into = d.pick(level < 4 ? [100_000, 50_000] : [47_000, 68_000, 100_000]);
    const held = b.add('constant', 'Tide', { volts, lowVolts: 0, highVolts: 10 }, { outputOhms: { out: 0 } });
    const pot = b.add('attenuator', 'Pot', { build: 'passive', amount, potOhms });
    const lift = b.add('offset', 'Lift', {}, { inputOhms: { in: into } });
    const at = `${lift}.in`;
    b.plug(`${held}.out`, `${pot}.in`).plug(`${pot}.out`, at);
    return {
      patch: b.patch('Passive attenuator'),
      text: `A passive pot of ${potOhms / 1000} kΩ stands at ${Math.round(100 * amount)}% in front of an input of ${into / 1000} kΩ. Which voltage arrives?`,
      at,
      answer: 'volts',
      figure: 'steady',
      truth: (seen) => ({ value: seen.range(at)[0] }),
      slips: [
        { text: 'That leaves out the load of the input.', edits: [set('pot.build', 'active')] },
        {
          text: 'That sets the whole pot in series with the input.',
          as: () => ({ value: (volts * into) / (into + potOhms) }),
        },
      ],
    };
  },
};
