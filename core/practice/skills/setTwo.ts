import { PatchBuilder } from '../build';
import { roundOf } from '../chain';
import { knobTo } from '../knobs';
import { Seen } from '../seen';
import type { Skill } from '../types';

export const setTwo: Skill = {
  name: 'set-two',
  group: 'knob',
  text: 'Set two knobs so that the range fits',
  draw(d, level) {
    const { volts: step, share } = roundOf(level);
    const [lowVolts, highVolts] = d.pick([
      [-5, 5],
      [0, 8],
      [0, 5],
    ] as const);
    const amount = d.away(level < 3 ? 0 : -0.9, 0.9, level === 1 ? 0.1 : share / 2, 0.2);
    const volts = d.away(-4, 4, step, 1);
    const order = level < 4 ? 'scaleThenShift' : d.pick(['scaleThenShift', 'shiftThenScale'] as const);
    const build = (knobs: { readonly amount: number; readonly volts: number }, target: readonly object[]) => {
      const b = new PatchBuilder();
      const slow = b.add('lfo', 'Swell', { rateHz: 0.5, lowVolts, highVolts });
      const both = b.stage(`${slow}.out`, 'offset', 'Both', { ...knobs, order });
      const end = b.add('parameter', 'Depth', { fullVolts: 10, high: 10, unit: 'V' });
      return b.plug(both, `${end}.cv`).wanted(target).patch('Set two knobs');
    };
    const solved = build({ amount, volts }, []);
    const [low, high] = new Seen(solved).range('both.out');
    if (high - low < 0.5) return null;
    const target = { at: 'both.out', quantity: 'volts', low, high, basis: 'arrives' };
    return {
      ...knobTo(build({ amount: amount === 1 ? 0.5 : 1, volts: 0 }, [target]), solved, ['both.amount', 'both.volts']),
      text: `Set gain and offset of Both so that ${low.toFixed(2)} to ${high.toFixed(2)} V arrive.`.replaceAll(
        '-',
        '−',
      ),
      at: 'both.out',
      slips: [
        {
          text: 'That has the offset with the wrong sign.',
          as: () => ({
            knobs: [
              { at: 'both.amount', value: amount },
              { at: 'both.volts', value: -volts },
            ],
          }),
        },
        {
          text:
            order === 'scaleThenShift'
              ? 'That adds the offset before the gain.'
              : 'That adds the offset after the gain.',
          as: () => ({
            knobs: [
              { at: 'both.amount', value: amount },
              {
                at: 'both.volts',
                value: Number((order === 'scaleThenShift' ? volts / amount : volts * amount).toPrecision(6)),
              },
            ],
          }),
        },
      ],
    };
  },
};
