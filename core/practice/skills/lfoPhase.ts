import { PatchBuilder } from '../build';
import { set } from '../chain';
import { tracesToChoose } from '../traces';
import type { Skill } from '../types';

export const lfoPhase: Skill = {
  name: 'phase',
  group: 'shape',
  text: 'Phase between two LFOs',
  draw(d, level) {
    const b = new PatchBuilder();
    const phase = d.pick(level < 3 ? [0.25, 0.5, 0.75] : [0.125, 0.25, 0.375, 0.625, 0.75]);
    const times = level < 4 ? 1 : 2;
    const first = b.add('lfo', 'Swell', { rateHz: 0.5, shape: 'triangle', lowVolts: 0, highVolts: 5 });
    const second = b.add('lfo', 'Ripple', {
      rateHz: 0.5 * times,
      shape: level < 3 ? 'triangle' : d.pick(['triangle', 'rampUp']),
      lowVolts: 0,
      highVolts: 3,
      phase,
    });
    const join = b.add('mixer', 'Join', { inputs: 2 });
    b.plug(`${first}.out`, `${join}.in1`).plug(`${second}.out`, `${join}.in2`);
    const found = tracesToChoose(d, b.patch('Phase'), `${join}.out`, [
      { text: 'That has both in phase.', edits: [set('ripple.phase', 0)] },
      { text: 'That has the second as far behind as it is ahead.', edits: [set('ripple.phase', (1 - phase) % 1)] },
      { text: 'That has them opposite.', edits: [set('ripple.phase', 0.5)] },
      { text: 'That is a quarter of a cycle off.', edits: [set('ripple.phase', (phase + 0.25) % 1)] },
      {
        text: 'That takes one from the other: a mixer adds.',
        edits: [set('ripple.lowVolts', 0), set('ripple.highVolts', -3)],
      },
      { text: 'That is another rate.', edits: [set('ripple.rateHz', times)] },
    ]);
    return found && { ...found, text: `Ripple starts ${phase} of a cycle in. Which of these is their sum?` };
  },
};
