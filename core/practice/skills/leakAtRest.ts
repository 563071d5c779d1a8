import { PatchBuilder } from '../build';
import { readingAt } from '../chain';
import { asPower, otherUnities } from '../slips';
import type { Skill } from '../types';

export const leakAtRest: Skill = {
  name: 'leak',
  group: 'VCA',
  text: 'Leak at rest',
  draw(d, level) {
    const b = new PatchBuilder();
    const unityVolts = d.pick([5, 8, 10]);
    const bias = level < 3 ? d.pick([0.05, 0.1, 0.5, 1]) : d.number(0.05, 1, 0.05);
    const key = b.add('clock', 'Key', { bpm: 60, width: 0.2 });
    const bell = b.add('envelope', 'Bell', { mode: 'ar', attack: 0.01, release: 0.1, peakVolts: 8 });
    const beam = b.add('vca', 'Beam', { unityVolts, bias, cvAmount: 0.5 });
    const tone = b.add('oscillator', 'Drone');
    const at = `${beam}.cv`;
    b.plug(`${key}.out`, `${bell}.gate`).plug(`${bell}.out`, at).plug(`${tone}.sine`, `${beam}.in`);
    return {
      patch: b.patch('Leak at rest', { sampleRate: 8000 }),
      text: `The level knob of Beam stands at ${bias} V. By how many dB does it leak while the envelope rests?`,
      at,
      answer: 'unit',
      unit: 'dB',
      figure: 'gain',
      truth: readingAt(at, 'low'),
      slips: [
        asPower,
        ...otherUnities('beam.unityVolts', unityVolts),
        { text: 'That is how far it opens.', as: (_, seen) => readingAt(at, 'high')(seen) },
      ],
    };
  },
};
