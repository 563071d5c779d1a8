import { PatchBuilder } from '../build';
import { set, voltsAt } from '../chain';
import type { Skill } from '../types';

export const slewReach: Skill = {
  name: 'slew-reach',
  group: 'time',
  text: 'How far slew gets within a step',
  draw(d, level) {
    const b = new PatchBuilder();
    const bpm = d.pick([60, 120]);
    const high = d.pick([5, 8]);
    const law = level < 3 ? 'linear' : d.pick(['linear', 'rc'] as const);
    const key = b.add('clock', 'Key', { bpm, width: 0.5, highVolts: high });
    // Over 10 V: a time that is too long for half a beat.
    const gate = 30 / bpm;
    const rise = Number((gate * d.number(1.5, 5, 0.5) * (10 / high) * 0.8).toFixed(2));
    const at = b.stage(`${key}.out`, 'slew', 'Drag', { rise, fall: 0, law });
    return {
      patch: b.patch('How far slew gets'),
      text:
        law === 'linear'
          ? `Drag takes ${rise} s for 10 V, and the gate is high for ${gate} s. How high does it get?`
          : `Drag nears its goal to under 1% in ${rise} s, and the gate is high for ${gate} s. How high does it get?`,
      at,
      answer: 'volts',
      figure: 'high',
      truth: (seen) => {
        const found = voltsAt(at, 'high')(seen);
        return found && 'value' in found && found.value > 0.3 && found.value < 0.97 * high ? found : null;
      },
      slips: [
        { text: 'That is where it goes, not where it gets: the gate ends first.', as: () => ({ value: high }) },
        {
          text: 'That takes the time for the step itself: it is for 10 V.',
          as: () => (law === 'linear' ? { value: (high * gate) / rise } : null),
        },
        { text: 'That is the other lag.', edits: [set('drag.law', law === 'linear' ? 'rc' : 'linear')] },
      ],
    };
  },
};
