import { PatchBuilder } from '../build';
import { readingAt, roundOf, set } from '../chain';
import type { Skill } from '../types';

export const voltsOctaves: Skill = {
  name: 'volts-octaves',
  group: 'units',
  text: 'Volts and octaves',
  draw(d, level) {
    const b = new PatchBuilder();
    const { share } = roundOf(level);
    const volts = level < 3 ? d.away(-2, 3, 1, 1) : d.away(-2, 3, level < 5 ? 0.5 : 0.25, 0.5);
    const held = b.add('constant', 'Tide', { volts });
    const fog = b.add('filter', 'Fog', {
      cutoffHz: d.pick([100, 200, 250, 400, 500]),
      cutoffAmount: level < 3 ? 1 : d.number(0.4, 1, share),
    });
    const tone = b.add('oscillator', 'Drone');
    const at = `${fog}.cutoff`;
    b.plug(`${held}.out`, at).plug(`${tone}.saw`, `${fog}.in`);
    return {
      patch: b.patch('Volts and octaves', { duration: 0.1, sampleRate: 'auto' }),
      text: 'Where does the cutoff stand?',
      at,
      answer: 'unit',
      unit: 'Hz',
      figure: 'frequency',
      truth: readingAt(at, 'high'),
      slips: [
        { text: 'That goes up by a semitone a volt: it is an octave.', edits: [set('tide.volts', volts / 12)] },
        { text: 'That forgets the amount knob.', edits: [set('fog.cutoffAmount', 1)] },
        { text: 'That goes the other way.', edits: [set('tide.volts', -volts)] },
        {
          text: 'That adds the cutoff once a volt: each volt doubles it.',
          as: (_, seen) => {
            const base = Number(seen.patch.modules.find((m) => m.id === fog)?.params?.cutoffHz);
            const amount = Number(seen.patch.modules.find((m) => m.id === fog)?.params?.cutoffAmount ?? 1);
            return { value: base * (1 + amount * volts) };
          },
        },
      ],
    };
  },
};
