import { PatchBuilder } from '../build';
import { Seen } from '../seen';
import type { Choice, Skill } from '../types';

const NOTES = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B'];
const C4 = 261.6256;

/** A pitch in the ways that people write it. */
function written(semitones: number, way: 'note' | 'hz' | 'volts'): string {
  if (way === 'volts') return `${Number((semitones / 12).toFixed(3))} V above C4`.replace('-', '−');
  if (way === 'hz') return `${(C4 * 2 ** (semitones / 12)).toFixed(0)} Hz`;
  return `${NOTES[((semitones % 12) + 12) % 12]}${4 + Math.floor(semitones / 12)}`;
}

export const noteLies: Skill = {
  name: 'note',
  group: 'spectrum',
  text: 'Where a note lies',
  draw(d, level) {
    const b = new PatchBuilder();
    const count = level < 3 ? 3 : 4;
    const least = level < 3 ? 4 : level < 5 ? 2 : 1;
    const drawn = d.shuffled(
      Array.from({ length: 37 }, (_, n) => n - 18),
      12,
    );
    const kept: number[] = [];
    for (const s of drawn) if (kept.length < count && kept.every((k) => Math.abs(k - s) >= least)) kept.push(s);
    if (kept.length < count) return null;
    const ways = d.shuffled(['note', 'hz', 'volts', 'note'] as const, count);
    const voices = kept.map((semitones) => {
      const held = b.add('constant', 'Tide', { volts: Number((semitones / 12).toFixed(6)) });
      const tone = b.add('oscillator', 'Drone', { baseHz: C4 });
      b.plug(`${held}.out`, `${tone}.pitch`);
      return { pitch: `${tone}.pitch`, held: `${held}.out` };
    });
    const patch = b.patch('Where a note lies', { duration: 0.1, sampleRate: 'auto' });
    const seen = new Seen(patch);
    const hz = voices.map(({ pitch }) => seen.reading(pitch)?.arrivesHigh ?? 0);
    const order = hz.map((_, i) => i).toSorted((x, y) => (hz[x] as number) - (hz[y] as number));
    return {
      patch,
      text: 'Put these in order, the lowest first.',
      answer: 'order',
      figure: 'frequency',
      unit: 'Hz',
      choices: kept.map((semitones, i): Choice => ({ text: written(semitones, ways[i] ?? 'note') })),
      hidden: voices.flatMap(({ pitch, held }) => [pitch, held]),
      truth: () => ({ order }),
      slips: [{ text: 'That begins with the highest.', as: () => ({ order: order.toReversed() }) }],
    };
  },
};
