import { PatchBuilder } from '../build';
import { set } from '../chain';
import type { Skill } from '../types';

export const swingLost: Skill = {
  name: 'swing-lost',
  group: 'time',
  text: 'Swing lost by slew',
  draw(d, level) {
    const b = new PatchBuilder();
    const rateHz = d.pick([0.5, 1, 2]);
    const high = d.pick(level < 3 ? [5] : [3, 5]);
    const law = level < 4 ? 'linear' : d.pick(['linear', 'rc'] as const);
    const slow = b.add('lfo', 'Swell', { rateHz, shape: 'pulse', lowVolts: -high, highVolts: high });
    const half = 0.5 / rateHz;
    const time = Number((half * d.number(1.5, 4, 0.5) * (10 / (2 * high))).toFixed(3));
    const at = b.stage(`${slow}.out`, 'slew', 'Drag', { rise: time, fall: time, law });
    return {
      patch: b.patch('Swing lost', { duration: 8 }),
      text: `A square of ±${high} V, ${rateHz} Hz goes through a ${law === 'linear' ? 'straight' : 'resistor-capacitor'} lag of ${time} s. How many volts peak to peak are left?`,
      at,
      answer: 'volts',
      figure: 'peakToPeak',
      truth: (seen) => {
        const [low, above] = seen.range(at);
        const swing = above - low;
        return swing > 0.3 && swing < 1.9 * high ? { value: swing } : null;
      },
      slips: [
        { text: 'That is what goes in.', as: () => ({ value: 2 * high }) },
        {
          text: 'That is the peak, not peak to peak.',
          as: (truth) => ('value' in truth ? { value: truth.value / 2 } : null),
        },
        {
          text: 'That lets it slew for a whole turn: each way has half of one.',
          as: (truth) => ('value' in truth && law === 'linear' ? { value: truth.value * 2 } : null),
        },
        { text: 'That is the other lag.', edits: [set('drag.law', law === 'linear' ? 'rc' : 'linear')] },
      ],
    };
  },
};
