import { PatchBuilder } from '../build';
import { readingAt, set } from '../chain';
import type { Skill } from '../types';

export const voltsNotes: Skill = {
  name: 'volts-notes',
  group: 'units',
  text: 'Volts and notes',
  draw(d, level) {
    const b = new PatchBuilder();
    const semitones = level === 1 ? d.pick([-12, 12, 24]) : d.away(-24, 24, level < 4 ? 1 : 0.5, 1);
    const held = b.add('constant', 'Tide', { volts: Number((semitones / 12).toFixed(6)) });
    const root = d.pick([110, 220, 130.813, 261.626]);
    const tone = b.add('oscillator', 'Drone', { baseHz: root });
    const at = `${tone}.pitch`;
    b.plug(`${held}.out`, at);
    return {
      patch: b.patch('Volts and notes', { duration: 0.1, sampleRate: 'auto' }),
      text: `At 0 V Drone sounds ${root} Hz. Which frequency does it sound here?`,
      at,
      answer: 'unit',
      unit: 'Hz',
      figure: 'frequency',
      truth: readingAt(at, 'high'),
      slips: [
        { text: 'That goes the other way.', edits: [set('tide.volts', -semitones / 12)] },
        { text: 'That is an octave too high.', edits: [set('tide.volts', (semitones + 12) / 12)] },
        { text: 'That is an octave too low.', edits: [set('tide.volts', (semitones - 12) / 12)] },
        {
          text: 'That takes a semitone as a tenth of a volt: twelve make one.',
          edits: [set('tide.volts', semitones / 10)],
        },
      ],
    };
  },
};
