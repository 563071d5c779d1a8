import { PatchBuilder } from '../build';
import { sameTones, tonesAt } from '../tones';
import { Seen } from '../seen';
import type { Skill } from '../types';

const named = (list: readonly number[]): string => list.map((hz) => `${Math.round(hz)} Hz`).join(', ');
const sorted = (...list: readonly number[]): number[] => list.toSorted((a, b) => a - b);

export const ringFrequencies: Skill = {
  name: 'ring-frequencies',
  group: 'spectrum',
  text: 'Frequencies of ring and amplitude modulation',
  draw(d, level) {
    const b = new PatchBuilder();
    const low = d.pick(level < 3 ? [100, 200] : [110, 130, 170, 230]);
    const high = d.pick(level < 3 ? [500, 600, 800] : [470, 610, 730, 890]);
    const ring = level < 2 ? true : d.chance(0.5);
    const first = b.add('oscillator', 'Drone', { baseHz: high });
    const second = b.add('oscillator', 'Hull', { baseHz: low });
    let at: string;
    if (ring) {
      const times = b.add('ringMod', 'Times', { coupling: 'dc' });
      b.plug(`${first}.sine`, `${times}.a`).plug(`${second}.sine`, `${times}.b`);
      at = `${times}.out`;
    } else {
      const beam = b.add('vca', 'Beam', { bias: 2.5, cvAmount: 0.4 });
      b.plug(`${first}.sine`, `${beam}.in`).plug(`${second}.sine`, `${beam}.cv`);
      at = `${beam}.out`;
    }
    const patch = b.patch(ring ? 'Ring modulation' : 'Amplitude modulation', { duration: 1.5, sampleRate: 48_000 });
    const tones = tonesAt(new Seen(patch, { traces: [at] }), at);
    const sides = sorted(high - low, high + low);
    const options = [
      { tones: sides, text: 'That is ring modulation: amplitude modulation keeps the carrier.' },
      { tones: sorted(...sides, high), text: 'That is amplitude modulation: a ring modulator takes the carrier away.' },
      { tones: sorted(low, high), text: 'That adds them: multiplying gives sum and difference.' },
      { tones: sorted(2 * low, 2 * high), text: 'That doubles each: multiplying gives sum and difference.' },
    ];
    const order = d.shuffled(options);
    const choice = order.findIndex((o) => sameTones(o.tones, tones));
    if (choice < 0) return null;
    return {
      patch,
      text: ring
        ? `Sines of ${high} Hz and ${low} Hz are multiplied in four quadrants. Which frequencies come out?`
        : `A sine of ${low} Hz moves the level of a sine of ${high} Hz, never closing it. Which frequencies come out?`,
      at,
      answer: 'choice',
      choices: order.map((o) => ({ text: named(o.tones) })),
      truth: () => ({ choice }),
      slips: order.flatMap((o, i) => (i === choice ? [] : [{ text: o.text, as: () => ({ choice: i }) }])),
    };
  },
};
