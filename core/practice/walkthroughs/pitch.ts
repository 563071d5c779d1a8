import { ofRecipe, step } from './build';
import type { BuiltWalkthrough } from './build';

export const pitch: readonly BuiltWalkthrough[] = [
  ofRecipe('vibrato', [
    step('Vibrato is a small, fast movement of pitch. An LFO swings over several volts, and each volt is an octave.', {
      at: 'voice.pitch',
      look: ['slow.out', 'peakToPeak'],
    }),
    step('Depth takes a sixtieth of it: a semitone, a twelfth of a volt, each way.', {
      look: ['voice.pitch', 'readingHigh'],
    }),
    step('Before that a VCA fades it in. While Fade-in is at 0 V the note stands still.', {
      pins: ['fade.out', 'swell.out'],
      look: ['swell.out', 'peakToPeak'],
    }),
    step('Twice the gain is twice the depth: two semitones each way, a siren.', {
      set: { 'depth.amount': 0.033333 },
      look: ['voice.pitch', 'high'],
      ask: [
        'The LFO peaks at 5 V. Depth’s gain goes to 0.0333: how high does the pitch input get?',
        'voice.pitch',
        'high',
      ],
    }),
    step('A third of a semitone is plenty for most lines.', {
      set: { 'depth.amount': 0.005556 },
      look: ['voice.pitch', 'readingHigh'],
    }),
    step('A shorter attack brings the vibrato in almost at once.', {
      set: { 'depth.amount': 0.016667, 'fade.attack': 0.2 },
      pins: ['fade.out', 'swell.out'],
      look: ['voice.pitch', 'readingHigh'],
    }),
  ]),
  ofRecipe('glide', [
    step(
      'A line of notes in volts, where a twelfth of a volt is a semitone. A slew limiter stands before the pitch input.',
      {
        at: 'voice.pitch',
        pins: ['notes.cv', 'glide.out'],
        look: ['voice.pitch', 'readingHigh'],
      },
    ),
    step('Rise and fall are shorter than a step: each note is reached well before the next begins.', {
      look: ['glide.out', 'high'],
    }),
    step('Longer than a step, the glide never arrives. The highest note goes flat, the lowest sharp.', {
      set: { 'glide.rise': 1.5, 'glide.fall': 1.5 },
      look: ['voice.pitch', 'readingHigh'],
    }),
    step('A linear law has one speed: a wide step takes longer than a narrow one.', {
      set: { 'glide.law': 'linear', 'glide.rise': 8, 'glide.fall': 8 },
      look: ['voice.pitch', 'readingHigh'],
    }),
    step('Rise alone: it glides up and drops at once.', {
      set: { 'glide.fall': 0 },
      look: ['voice.pitch', 'readingLow'],
    }),
    step('RC again, at a length that arrives: every glide takes the same time, however wide it is.', {
      set: { 'glide.law': 'rc', 'glide.rise': 0.15, 'glide.fall': 0.15 },
      look: ['voice.pitch', 'readingHigh'],
    }),
  ]),
  ofRecipe('random-notes', [
    step('Noise is sampled on each beat: a random voltage that holds still until the next.', {
      at: 'voice.pitch',
      pins: ['hold.out'],
      look: ['hold.out', 'peakToPeak'],
    }),
    step('Span takes a fifth of it and adds a volt.', { pins: ['hold.out', 'span.out'], look: ['span.out', 'high'] }),
    step('The quantizer rounds to the nearest note of its scale. Only notes of the scale reach the oscillator.', {
      pins: ['span.out', 'near.out'],
      look: ['voice.pitch', 'readingHigh'],
    }),
    step('Less gain: the same dice, but fewer notes to land on.', {
      set: { 'span.amount': 0.08 },
      look: ['voice.pitch', 'readingHigh'],
    }),
    step('Another scale: octaves alone, over a wider span.', {
      set: { 'near.scale': 'octaves', 'span.amount': 0.4 },
      look: ['voice.pitch', 'readingHigh'],
    }),
    step('The offset moves the whole range up and makes it no wider.', {
      set: { 'near.scale': 'minorPentatonic', 'span.amount': 0.2, 'span.volts': 2 },
      look: ['voice.pitch', 'readingLow'],
    }),
  ]),
];
