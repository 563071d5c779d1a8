import { PatchBuilder } from '../build';
import { further, rangeAt, roundOf, set, swell } from '../chain';
import { otherUnities } from '../slips';
import type { Skill } from '../types';

export const product: Skill = {
  name: 'product',
  group: 'range',
  text: 'Product in a VCA',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d);
    const { volts } = roundOf(level);
    const unityVolts = d.pick([5, 8, 10]);
    const held = b.add('constant', 'Tide', {
      volts: d.number(1, unityVolts - 1, Math.min(volts, 0.5)),
      lowVolts: 0,
      highVolts: 10,
    });
    const beam = b.add('vca', 'Beam', { unityVolts });
    b.plug(from, `${beam}.in`).plug(`${held}.out`, `${beam}.cv`);
    const at = further(b, d, `${beam}.out`, level);
    return {
      patch: b.patch('Product'),
      text: `Beam is linear and fully open at ${unityVolts} V. What range arrives at the meter?`,
      at,
      answer: 'range',
      truth: rangeAt(at),
      slips: [
        ...otherUnities('beam.unityVolts', unityVolts, `: it is ${unityVolts} V here`),
        { text: 'That is with the VCA fully open.', edits: [set('tide.volts', unityVolts)] },
        {
          text: 'That adds both: a VCA multiplies.',
          as: (truth, seen) => {
            const [low, high] = seen.range(from);
            const [by] = seen.range('tide.out');
            return 'low' in truth ? { low: low + by, high: high + by } : null;
          },
        },
      ],
    };
  },
};
