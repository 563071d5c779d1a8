import { line, out, recipe, tone } from './types';
import type { Recipe } from './types';

export const pitch: readonly Recipe[] = [
  recipe(
    [
      'vibrato',
      'Vibrato that fades in',
      'Pitch',
      'Turn Fade-in’s attack to set how long the note stays steady, and Depth’s gain for the amount: 0.017 is ±1 semitone.',
    ],
    {
      stages: {
        key: ['clock', 'Key', { bpm: 15, width: 0.8 }],
        fade: ['envelope', 'Fade-in', { mode: 'ar', attack: 1.5, attackCurve: 0, release: 0.3, peakVolts: 5 }],
        slow: ['lfo', 'Slow', { shape: 'sine', rateHz: 5.5 }],
        swell: ['vca', 'Swell'],
        depth: ['attenuverter', 'Depth', { amount: 0.016667 }],
        voice: tone(330),
        out: out(),
      },
      cables: [
        'key.out > fade.gate',
        'fade.out > swell.cv',
        'slow.out > swell.in',
        'swell.out > depth.in',
        'depth.out > voice.pitch',
        'voice.triangle > out.left',
      ],
      settings: { duration: 4 },
    },
  ),
  recipe(
    [
      'glide',
      'A glide that arrives',
      'Pitch',
      'Turn Glide’s rise and fall together. Shorter than a step, it reaches every note; longer, and the line goes flat.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 90 }],
        notes: ['sequencer', 'Notes', line(0, 0.25, 7 / 12, 0.25)],
        glide: ['slew', 'Glide', { law: 'rc', rise: 0.15, fall: 0.15 }],
        voice: tone(220),
        out: out(),
      },
      cables: ['beat.out > notes.clock', 'notes.cv > glide.in', 'glide.out > voice.pitch', 'voice.triangle > out.left'],
      settings: { duration: 4 },
    },
  ),
  recipe(
    [
      'random-notes',
      'Random steps to notes of a scale',
      'Pitch',
      'Turn Span’s gain to set the note range; choose Notes’ scale to set which notes.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 120 }],
        hiss: ['noise', 'Hiss'],
        hold: ['sampleHold', 'Hold'],
        span: ['offset', 'Span', { amount: 0.2, volts: 1 }],
        near: ['quantizer', 'Notes', { scale: 'minorPentatonic' }],
        voice: tone(220),
        out: out(),
      },
      cables: [
        'beat.out > hold.clock',
        'hiss.out > hold.in',
        'hold.out > span.in',
        'span.out > near.in',
        'near.out > voice.pitch',
        'voice.triangle > out.left',
      ],
      settings: { duration: 4 },
    },
  ),
];
