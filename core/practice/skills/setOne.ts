import { PatchBuilder } from '../build';
import { roundOf } from '../chain';
import { knobTo } from '../knobs';
import { Seen } from '../seen';
import type { Skill } from '../types';

export const setOne: Skill = {
  name: 'set-one',
  group: 'knob',
  text: 'Set one knob so that the range fits',
  draw(d, level) {
    const { volts: step, share } = roundOf(level);
    const high = d.pick([5, 8, 10]);
    const amount = d.away(-0.9, 0.9, level === 1 ? 0.1 : share / 2, 0.2);
    const volts = level < 3 ? 0 : d.away(-3, 3, step, 1);
    const build = (set: number, target: readonly object[]) => {
      const b = new PatchBuilder();
      const slow = b.add('lfo', 'Swell', { rateHz: 0.5, lowVolts: 0, highVolts: high });
      const both = b.stage(`${slow}.out`, 'offset', 'Both', { amount: set, volts });
      const end = b.add('parameter', 'Depth', { fullVolts: 10, high: 10, unit: 'V' });
      return b.plug(both, `${end}.cv`).wanted(target).patch('Set one knob');
    };
    const solved = build(amount, []);
    const [low, top] = new Seen(solved).range('both.out');
    const target = { at: 'both.out', quantity: 'volts', low, high: top, basis: 'arrives' };
    const other = amount > 0 ? d.pick([-0.5, 0, 1]) : d.pick([0, 0.5, 1]);
    if (top - low < 0.5 || Math.abs(other - amount) < 0.2) return null;
    return {
      ...knobTo(build(other, [target]), solved, ['both.amount']),
      text: `Set the gain of Both so that ${low.toFixed(2)} to ${top.toFixed(2)} V arrive.`.replaceAll('-', '−'),
      at: 'both.out',
      slips: [
        { text: 'That forgets the sign.', as: () => ({ knobs: [{ at: 'both.amount', value: -amount }] }) },
        {
          text: 'That takes the source as bipolar.',
          as: () => ({ knobs: [{ at: 'both.amount', value: Math.sign(amount) * Math.min(1, Math.abs(amount) / 2) }] }),
        },
      ],
    };
  },
};
