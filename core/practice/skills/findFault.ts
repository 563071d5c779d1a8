import { surpriseFault } from '../../bench/places';
import { PatchBuilder } from '../build';
import { roundOf } from '../chain';
import type { Skill } from '../types';

export const findFault: Skill = {
  name: 'find-fault',
  group: 'fault',
  text: 'Find the fault in a simulated rack',
  draw(d, level) {
    const b = new PatchBuilder();
    const { share } = roundOf(level);
    const slow = b.add('lfo', 'Swell', { rateHz: 0.5 });
    const held = b.add('constant', 'Tide', { volts: d.away(-3, 3, 1, 1) });
    let at = b.stage(`${slow}.out`, 'attenuverter', 'Trim', { amount: d.away(-0.9, 0.9, share / 2, 0.3) });
    if (level > 1) {
      const join = b.add('mixer', 'Join', { inputs: 2, gain1: d.number(0.5, 1, 0.1), gain2: d.number(0.3, 1, 0.1) });
      b.plug(at, `${join}.in1`).plug(`${held}.out`, `${join}.in2`);
      at = `${join}.out`;
    }
    for (let n = 2; n < level; n++) {
      const sort = d.pick(['lift', 'flip', 'split'] as const);
      if (sort === 'lift')
        at = b.stage(at, 'offset', 'Lift', { volts: d.away(-2, 2, 0.5, 0.5), amount: d.number(0.4, 1, 0.1) });
      else if (sort === 'flip') at = b.stage(at, 'inverter', 'Flip');
      else at = b.stage(at, 'mult', 'Split', {}, 'in', 'out1');
    }
    const end = b.add('parameter', 'Depth', { knob: 0.2, fullVolts: 10, high: 100, unit: '%' });
    const patch = b.plug(at, `${end}.cv`).patch('Find the fault');
    const fault = surpriseFault(patch, d.whole(1, 1_000_000), null, undefined);
    if (!fault) return null;
    return {
      patch,
      text: 'Something is wrong at this rack. Choose sockets to measure, as few as you can, and name the fault.',
      answer: 'fault',
      fault,
      truth: () => ({ faults: [fault] }),
      slips: [],
    };
  },
};
