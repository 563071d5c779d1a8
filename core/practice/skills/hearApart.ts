import { set } from '../chain';
import { earPatch, earSkill } from '../ears';
import { Seen } from '../seen';
import { applyEdits } from '../../edit/edit';
import type { Answer } from '../types';

/** By level, steps in which levels and pitches lie apart. */
const STEP = {
  1: { db: 6, cents: 100 },
  2: { db: 4, cents: 50 },
  3: { db: 3, cents: 25 },
  4: { db: 2, cents: 20 },
  5: { db: 1, cents: 10 },
};

export const hearApart = earSkill('hear-apart', 'How many dB or cents apart', (d, level) => {
  const pitch = d.chance(0.5);
  const { db, cents } = STEP[level];
  const b = earPatch(d, { fog: { cutoffAmount: 0, cutoffHz: 1500 } });
  b.plug(`${b.add('constant', 'Tide')}.out`, 'drone.pitch');
  const patch = b.patch('How far apart', { duration: 1.5, sampleRate: 48_000 });
  const apart = pitch ? cents * d.whole(2, 5) : db * d.whole(1, 3);
  const edits = pitch
    ? [set('tide.volts', Number((apart / 1200).toFixed(6)))]
    : [set('beam.bias', Number((5 * 10 ** (-apart / 20)).toFixed(4)))];
  const at = pitch ? 'drone.pitch' : 'beam.cv';
  const figure = (list: typeof edits): number | null =>
    new Seen(applyEdits(patch, list), { only: [at] }).reading(at)?.arrivesHigh ?? null;
  return {
    patch,
    text: pitch ? 'The second is higher. By how many cents?' : 'The second is quieter. By how many dB?',
    answer: 'unit',
    unit: pitch ? 'ct' : 'dB',
    figure: pitch ? 'frequency' : 'gain',
    choices: [
      { text: 'First', edits: [] },
      { text: 'Second', edits },
    ],
    hidden: ['drone.pitch', 'beam.cv'],
    truth: (): Answer | null => {
      const [first, second] = [figure([]), figure(edits)];
      if (first === null || second === null) return null;
      return { value: pitch ? 1200 * Math.log2(second / first) : first - second };
    },
    slips: [
      {
        text: pitch ? 'That counts semitones: one has a hundred cents.' : 'That is dB of power.',
        as: (truth) => ('value' in truth ? { value: pitch ? truth.value / 100 : truth.value / 2 } : null),
      },
    ],
  };
});
