import { PatchBuilder } from '../build';
import { readingAt, roundOf, set } from '../chain';
import type { Skill } from '../types';

export const timeUnderCv: Skill = {
  name: 'time-cv',
  group: 'units',
  text: 'Time under CV',
  draw(d, level) {
    const b = new PatchBuilder();
    const volts = d.away(-3, 3, level < 3 ? 1 : level < 5 ? 0.5 : 0.25, 0.5);
    const held = b.add('constant', 'Tide', { volts });
    const rise = d.pick([0.05, 0.1, 0.2, 0.25]);
    const riseAmount = level < 3 ? 1 : d.away(-1, 1, roundOf(level).share, 0.3);
    const drag = b.add('slew', 'Drag', { rise, riseAmount });
    const key = b.add('clock', 'Key', { bpm: 30 });
    const at = `${drag}.riseCv`;
    b.plug(`${key}.out`, `${drag}.in`).plug(`${held}.out`, at);
    return {
      patch: b.patch('Time under CV'),
      text: `The rise is set to ${Math.round(1000 * rise)} ms. How long is it under this CV?`,
      at,
      answer: 'unit',
      unit: 's',
      figure: 'time',
      truth: readingAt(at, 'high'),
      slips: [
        { text: 'That goes the other way.', edits: [set('tide.volts', -volts)] },
        { text: 'That forgets the amount knob.', edits: [set('drag.riseAmount', 1)] },
        {
          text: 'That multiplies by the volts: each volt doubles.',
          as: () => (volts > 0 ? { value: rise * riseAmount * volts } : null),
        },
      ],
    };
  },
};
