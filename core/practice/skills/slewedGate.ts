import { PatchBuilder } from '../build';
import { set } from '../chain';
import { tracesToChoose } from '../traces';
import type { Skill } from '../types';

export const slewedGate: Skill = {
  name: 'slewed-gate',
  group: 'shape',
  text: 'A gate through a slew limiter',
  draw(d, level) {
    const b = new PatchBuilder();
    const key = b.add('clock', 'Key', { bpm: 60, width: d.pick([0.4, 0.5, 0.6]) });
    const [rise, fall] = d.shuffled(level < 3 ? [0.1, 0.8] : [0.2, 0.5, 1], 2) as [number, number];
    const law = level < 3 ? 'linear' : d.pick(['linear', 'rc'] as const);
    const at = b.stage(`${key}.out`, 'slew', 'Drag', { rise, fall, law });
    const found = tracesToChoose(d, b.patch('Slewed gate'), at, [
      { text: 'That has rise and fall the other way round.', edits: [set('drag.rise', fall), set('drag.fall', rise)] },
      { text: 'That is the gate itself.', edits: [set('drag.rise', 0), set('drag.fall', 0)] },
      {
        text: 'That is the other lag: straight ramps have one speed, a resistor and capacitor slow down near the end.',
        edits: [set('drag.law', law === 'linear' ? 'rc' : 'linear')],
      },
      { text: 'That slews the rise only.', edits: [set('drag.fall', 0)] },
      { text: 'That slews the fall only.', edits: [set('drag.rise', 0)] },
    ]);
    return (
      found && {
        ...found,
        text: `Drag rises in ${Math.round(1000 * rise)} ms and falls in ${Math.round(1000 * fall)} ms over 10 V. Which of these leaves it?`,
      }
    );
  },
};
