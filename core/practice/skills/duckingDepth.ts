import { PatchBuilder } from '../build';
import { readingAt, roundOf, set } from '../chain';
import { asPower } from '../slips';
import type { Skill } from '../types';

export const duckingDepth: Skill = {
  name: 'ducking',
  group: 'VCA',
  text: 'Ducking depth',
  draw(d, level) {
    const b = new PatchBuilder();
    const { share } = roundOf(level);
    const unityVolts = 5;
    const peakVolts = d.pick([5, 8, 10]);
    const cvAmount = -d.number(0.1, 0.6, level < 3 ? 0.1 : Math.min(0.05, share));
    const key = b.add('clock', 'Key', { bpm: 60, width: 0.3 });
    const bell = b.add('envelope', 'Bell', { mode: 'ar', attack: 0.01, release: 0.2, peakVolts });
    const beam = b.add('vca', 'Beam', { unityVolts, bias: unityVolts, cvAmount });
    const tone = b.add('oscillator', 'Drone');
    const at = `${beam}.cv`;
    b.plug(`${key}.out`, `${bell}.gate`).plug(`${bell}.out`, at).plug(`${tone}.sine`, `${beam}.in`);
    return {
      patch: b.patch('Ducking', { sampleRate: 8000 }),
      text: 'Beam rests fully open, and the inverted envelope ducks it. By how many dB at the deepest?',
      at,
      answer: 'unit',
      unit: 'dB',
      figure: 'gain',
      truth: (seen) => {
        const found = readingAt(at, 'low')(seen);
        return found && 'value' in found && found.value > -40 ? found : null;
      },
      slips: [
        asPower,
        {
          text: 'That is the part that is taken away, not what is left.',
          as: () => ({ value: 20 * Math.log10(Math.min(1, (-cvAmount * peakVolts) / unityVolts)) }),
        },
        {
          text: `That takes a peak of ${peakVolts === 5 ? 8 : 5} V.`,
          edits: [set('bell.peakVolts', peakVolts === 5 ? 8 : 5)],
        },
        {
          text: 'That forgets the sign: a duck is below 0 dB.',
          as: (truth) => ('value' in truth ? { value: -truth.value } : null),
        },
      ],
    };
  },
};
