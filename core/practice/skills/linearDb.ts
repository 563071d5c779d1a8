import { PatchBuilder } from '../build';
import { readingAt, set } from '../chain';
import { asPower, otherUnities } from '../slips';
import type { Skill } from '../types';

export const linearDb: Skill = {
  name: 'linear-db',
  group: 'units',
  text: 'dB of a linear VCA',
  draw(d, level) {
    const b = new PatchBuilder();
    const unityVolts = d.pick([5, 8, 10]);
    const share = level === 1 ? d.pick([0.5, 0.25, 1]) : d.number(0.1, 0.95, level < 4 ? 0.1 : 0.05);
    const bias = level < 3 ? 0 : d.number(0, 1, 0.5);
    const volts = Number((unityVolts * share).toFixed(3));
    const held = b.add('constant', 'Tide', { volts, lowVolts: 0, highVolts: 10 });
    const beam = b.add('vca', 'Beam', { unityVolts, ...(bias > 0 && { bias }) });
    const tone = b.add('oscillator', 'Drone');
    const at = `${beam}.cv`;
    b.plug(`${held}.out`, at).plug(`${tone}.sine`, `${beam}.in`);
    return {
      patch: b.patch('Linear VCA', { duration: 0.1, sampleRate: 'auto' }),
      text: `Beam is linear and fully open at ${unityVolts} V. How many dB does it give?`,
      at,
      answer: 'unit',
      unit: 'dB',
      figure: 'gain',
      truth: readingAt(at, 'high'),
      slips: [
        asPower,
        { text: 'That forgets the level knob: it adds to the CV.', edits: [set('beam.bias', 0)] },
        ...otherUnities('beam.unityVolts', unityVolts, `: it is ${unityVolts} V here`),
      ],
    };
  },
};
