import { PatchBuilder } from '../build';
import type { Skill } from '../types';

export const outputsJoined: Skill = {
  name: 'outputs-joined',
  group: 'electrical',
  text: 'Outputs joined by resistors',
  draw(d, level) {
    const b = new PatchBuilder();
    const count = level < 3 ? 2 : level < 5 ? 3 : 4;
    const join = b.add('junction', 'Knot');
    const lift = b.add('offset', 'Lift', {}, { inputOhms: { in: 1_000_000 } });
    const parts = Array.from({ length: count }, (_, n) => {
      const volts = d.away(-5, 8, 1, 1);
      const ohms = level === 1 ? 1000 : d.pick([1000, 2000, 10_000]);
      const held = b.add('constant', 'Tide', { volts, lowVolts: -5, highVolts: 8 }, { outputOhms: { out: ohms } });
      b.plug(`${held}.out`, `${join}.in${n + 1}`);
      return { volts, ohms };
    });
    const at = `${lift}.in`;
    b.plug(`${join}.out`, at);
    const list = parts.map((p) => `${p.volts} V behind ${p.ohms / 1000} kΩ`).join(', ');
    const sum = parts.reduce((s, p) => s + p.volts, 0);
    return {
      patch: b.patch('Outputs joined'),
      text: `Joined without a mixer: ${list}. Which voltage arrives?`,
      at,
      answer: 'volts',
      figure: 'steady',
      truth: (seen) => ({ value: seen.range(at)[0] }),
      slips: [
        { text: 'That adds them: joined outputs meet in between.', as: () => ({ value: sum }) },
        { text: 'That is the plain average: a smaller resistance pulls harder.', as: () => ({ value: sum / count }) },
        { text: 'That is the strongest alone.', as: () => ({ value: Math.max(...parts.map((p) => p.volts)) }) },
      ],
    };
  },
};
