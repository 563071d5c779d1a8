import { PatchBuilder } from '../build';
import { further, roundOf, set, swell } from '../chain';
import { tracesToChoose } from '../traces';
import type { Skill } from '../types';

export const whichTrace: Skill = {
  name: 'which-trace',
  group: 'shape',
  text: 'Which of four traces',
  draw(d, level) {
    const b = new PatchBuilder();
    const { volts: step, share } = roundOf(level);
    const from = swell(b, d);
    const [amount, volts] = [d.away(-0.9, 0.9, share / 2, 0.4), d.away(-4, 4, step, 1.5)];
    const at = further(b, d, b.stage(from, 'offset', 'Both', { amount, volts }), level);
    const found = tracesToChoose(d, b.patch('Which trace'), at, [
      { text: 'That forgets the sign of the gain.', edits: [set('both.amount', -amount)] },
      { text: 'That forgets the offset.', edits: [set('both.volts', 0)] },
      { text: 'That adds the offset before the gain.', edits: [set('both.order', 'shiftThenScale')] },
      { text: 'That takes the offset away.', edits: [set('both.volts', -volts)] },
      { text: 'That is without the gain.', edits: [set('both.amount', 1)] },
    ]);
    return found && { ...found, text: 'Which of these arrives at the meter?' };
  },
};
