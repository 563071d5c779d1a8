import { PatchBuilder } from '../build';
import { set } from '../chain';
import { knobTo } from '../knobs';
import type { Skill } from '../types';

export const slewArrives: Skill = {
  name: 'slew-arrives',
  group: 'time',
  text: 'Slew time so that it arrives',
  draw(d, level) {
    const bpm = d.pick([30, 60, 120]);
    const high = d.pick(level < 3 ? [5] : [4, 5, 8]);
    const share = d.pick(level < 3 ? [0.5, 1] : [0.25, 0.5, 0.75]);
    const gate = 30 / bpm;
    // A straight lag takes its time for 10 V.
    const time = Number(((gate * share * 10) / high).toFixed(4));
    const build = (rise: number) => {
      const b = new PatchBuilder();
      const key = b.add('clock', 'Key', { bpm, width: 0.5, highVolts: high });
      const out = b.stage(`${key}.out`, 'slew', 'Drag', { rise });
      const end = b.add('parameter', 'Depth', { knob: 0, fullVolts: 10, high: 100, unit: '%' });
      b.plug(out, `${end}.cv`).wanted([{ at: `${end}.cv`, want: 'arrive', seconds: gate * share }]);
      return b.patch('Slew that arrives');
    };
    return {
      ...knobTo(build(Number((time * d.pick([0.2, 3])).toFixed(3))), build(time), ['drag.rise']),
      text: `The gate steps to ${high} V for ${gate} s. Set Drag’s rise so that it arrives after ${gate * share} s. Rise is the time for 10 V.`,
      at: 'drag.out',
      slips: [
        {
          text: 'That takes the time for the step itself: it is for 10 V.',
          as: () => ({ knobs: [{ at: 'drag.rise', value: gate * share }] }),
        },
        {
          text: 'That scales the wrong way round.',
          as: () => ({ knobs: [{ at: 'drag.rise', value: (gate * share * high) / 10 }] }),
          edits: [set('drag.rise', 0)],
        },
      ],
    };
  },
};
