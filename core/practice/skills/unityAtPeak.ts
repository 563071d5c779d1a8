import { PatchBuilder } from '../build';
import { knobTo } from '../knobs';
import { set } from '../chain';
import type { Skill } from '../types';

export const unityAtPeak: Skill = {
  name: 'unity-at-peak',
  group: 'VCA',
  text: 'Amount for unity at the peak',
  draw(d, level) {
    const peakVolts = d.pick(level < 3 ? [8, 10] : [6, 7, 8, 9, 10]);
    const unityVolts = d.pick([5, 8, 10].filter((v) => v < peakVolts || level < 3)) ?? 5;
    const bias = level < 4 ? 0 : d.pick([0, 0.5, 1]);
    const build = (cvAmount: number) => {
      const b = new PatchBuilder();
      const key = b.add('clock', 'Key', { bpm: 120 });
      const bell = b.add('envelope', 'Bell', { mode: 'ar', attack: 0.05, release: 0.2, peakVolts });
      const beam = b.add('vca', 'Beam', { unityVolts, cvAmount, ...(bias > 0 && { bias }) });
      const tone = b.add('oscillator', 'Drone');
      b.plug(`${key}.out`, `${bell}.gate`).plug(`${bell}.out`, `${beam}.cv`).plug(`${tone}.sine`, `${beam}.in`);
      b.wanted([{ at: `${beam}.cv`, quantity: 'gain', low: null, high: 0, basis: 'arrives' }]);
      return b.patch('Unity at the peak', { duration: 2, sampleRate: 8000 });
    };
    const amount = (unityVolts - bias) / peakVolts;
    if (amount > 1 || amount < 0.2) return null;
    return {
      ...knobTo(build(d.pick([0, 1])), build(amount), ['beam.cvAmount']),
      text: `Bell peaks at ${peakVolts} V, and Beam is fully open at ${unityVolts} V. Set Beam’s CV amount so that the peak comes to unity gain.`,
      at: 'beam.cv',
      slips: [
        {
          text: 'That takes 10 V as fully open.',
          edits: [set('beam.unityVolts', 10)],
          as: () => ({ knobs: [{ at: 'beam.cvAmount', value: Math.min(1, 10 / peakVolts) }] }),
        },
        {
          text: 'That forgets the level knob: it adds to the CV.',
          as: () => ({ knobs: [{ at: 'beam.cvAmount', value: Math.min(1, unityVolts / peakVolts) }] }),
        },
        {
          text: 'That is the other way round: the peak over what opens it.',
          as: () => ({ knobs: [{ at: 'beam.cvAmount', value: Math.min(1, peakVolts / unityVolts / 2) }] }),
        },
      ],
    };
  },
};
