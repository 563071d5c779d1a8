import { PatchBuilder } from '../build';
import { readingAt, set } from '../chain';
import { otherUnities } from '../slips';
import type { Skill } from '../types';

export const exponentialDb: Skill = {
  name: 'exponential-db',
  group: 'units',
  text: 'dB of an exponential VCA',
  draw(d, level) {
    const b = new PatchBuilder();
    const unityVolts = d.pick([5, 8, 10]);
    const share = level === 1 ? d.pick([0.5, 0.75]) : d.number(0.2, 0.95, level < 4 ? 0.1 : 0.05);
    const volts = Number((unityVolts * share).toFixed(3));
    const held = b.add('constant', 'Tide', { volts, lowVolts: 0, highVolts: 10 });
    const beam = b.add('vca', 'Beam', { unityVolts, response: 1 });
    const tone = b.add('oscillator', 'Drone');
    const at = `${beam}.cv`;
    b.plug(`${held}.out`, at).plug(`${tone}.sine`, `${beam}.in`);
    return {
      patch: b.patch('Exponential VCA', { duration: 0.1, sampleRate: 'auto' }),
      text: `Beam is exponential and fully open at ${unityVolts} V. How many dB does it give at ${volts} V?`,
      at,
      answer: 'unit',
      unit: 'dB',
      figure: 'gain',
      truth: readingAt(at, 'high'),
      slips: [
        { text: 'That is a linear response.', edits: [set('beam.response', 0)] },
        ...otherUnities('beam.unityVolts', unityVolts, `: it is ${unityVolts} V here`),
      ],
    };
  },
};
