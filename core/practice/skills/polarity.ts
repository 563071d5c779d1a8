import { idOf } from '../../document/sockets';
import { PatchBuilder } from '../build';
import { set } from '../chain';
import { tracesToChoose } from '../traces';
import type { Skill } from '../types';

export const polarity: Skill = {
  name: 'polarity',
  group: 'shape',
  text: 'Polarity after several stages',
  draw(d, level) {
    const b = new PatchBuilder();
    const slow = b.add('lfo', 'Swell', { rateHz: 0.5, shape: 'rampUp', lowVolts: 0, highVolts: d.pick([5, 8]) });
    let at = `${slow}.out`;
    let last = '';
    for (let n = 0; n <= level; n++) {
      const sort = n === 0 ? 'turn' : d.pick(['turn', 'flip', 'join'] as const);
      if (sort === 'flip') at = b.stage(at, 'inverter', 'Flip');
      else if (sort === 'join') {
        at = b.stage(at, 'mixer', 'Join', { inputs: 2, inverting: d.chance(0.5) }, 'in1');
      } else {
        at = b.stage(at, 'attenuverter', 'Turn', { amount: d.away(-1, 1, 0.25, 0.5) });
        last = idOf(at);
      }
    }
    const amount = Number(b.paramsOf(last).amount);
    const found = tracesToChoose(d, b.patch('Polarity'), at, [
      { text: 'That counts one inversion too many, or one too few.', edits: [set(`${last}.amount`, -amount)] },
      { text: 'That turns the ramp around in time: inverting turns it over.', edits: [set('swell.shape', 'rampDown')] },
      {
        text: 'That counts one inversion too many, and turns time around.',
        edits: [set(`${last}.amount`, -amount), set('swell.shape', 'rampDown')],
      },
    ]);
    return found && { ...found, text: 'Which of these arrives at the meter?' };
  },
};
