import { PatchBuilder } from '../build';
import { roundOf, set, swell } from '../chain';
import type { Skill } from '../types';

export const ownKnob: Skill = {
  name: 'own-knob',
  group: 'range',
  text: 'A destination’s own knob and its CV',
  draw(d, level) {
    const b = new PatchBuilder();
    const from = swell(b, d);
    const { share } = roundOf(level);
    const amount = d.number(0.2, 0.6, share / 2);
    const out = b.stage(from, 'attenuator', 'Dim', { amount });
    const knob = d.number(0.1, 0.9, level < 3 ? 0.1 : 0.05);
    const cvAmount = level < 3 ? 1 : d.away(-1, 1, share, 0.3);
    const fullVolts = d.pick([5, 10]);
    const end = b.add('parameter', 'Depth', { knob, cvAmount, fullVolts, low: 0, high: 100, unit: '%' });
    const at = `${end}.cv`;
    b.plug(out, at);
    return {
      patch: b.patch('Own knob and CV'),
      text: `The knob stands at ${Math.round(100 * knob)}%, and ${fullVolts} V turn it from end to end. Between which values does it go?`,
      at,
      answer: 'range',
      unit: '%',
      figure: 'value',
      truth: (seen) => {
        const { arrivesLow: low, arrivesHigh: high } = seen.reading(at) ?? {};
        if (low === undefined || high === undefined || low === null || high === null) return null;
        return high - low < 5 ? null : { low, high };
      },
      slips: [
        { text: 'That forgets the knob: it adds to the CV.', edits: [set('depth.knob', 0)] },
        { text: 'That forgets the attenuator.', edits: [set('dim.amount', 1)] },
        {
          text: `That takes ${15 - fullVolts} V as the whole travel.`,
          edits: [set('depth.fullVolts', 15 - fullVolts)],
        },
      ],
    };
  },
};
