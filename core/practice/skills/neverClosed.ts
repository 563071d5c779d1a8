import { PatchBuilder } from '../build';
import { readingAt, roundOf, set, swell } from '../chain';
import { asPower, otherUnities } from '../slips';
import type { Skill } from '../types';

export const neverClosed: Skill = {
  name: 'never-closed',
  group: 'VCA',
  text: 'Never closed by so many dB',
  draw(d, level) {
    const b = new PatchBuilder();
    const { share } = roundOf(level);
    const from = swell(b, d, [
      [-5, 5],
      [-4, 4],
    ]);
    const unityVolts = d.pick([5, 8, 10]);
    const cvAmount = d.number(0.2, 0.5, level < 3 ? 0.1 : share / 2);
    const bias = d.number(2, 4.5, level < 3 ? 0.5 : 0.25);
    const beam = b.add('vca', 'Beam', { unityVolts, cvAmount, bias });
    const tone = b.add('oscillator', 'Drone');
    const at = `${beam}.cv`;
    b.plug(from, at).plug(`${tone}.sine`, `${beam}.in`);
    return {
      patch: b.patch('Never closed', { sampleRate: 8000 }),
      text: 'How far does Beam close, in dB?',
      at,
      answer: 'unit',
      unit: 'dB',
      figure: 'gain',
      truth: (seen) => {
        const found = readingAt(at, 'low')(seen);
        return found && 'value' in found && found.value > -40 && found.value < -0.5 ? found : null;
      },
      slips: [
        asPower,
        { text: 'That is how far it opens.', as: (_, seen) => readingAt(at, 'high')(seen) },
        { text: 'That forgets the CV amount.', edits: [set('beam.cvAmount', 1)] },
        { text: 'That is the level knob alone.', edits: [set('beam.cvAmount', 0)] },
        ...otherUnities('beam.unityVolts', unityVolts),
      ],
    };
  },
};
