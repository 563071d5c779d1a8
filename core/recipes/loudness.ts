import { line, out, recipe, tone } from './types';
import type { Recipe } from './types';

export const loudness: readonly Recipe[] = [
  recipe(
    [
      'tremolo',
      'Tremolo that never closes',
      'Level',
      'Turn Amp’s CV amount for depth. Its bias keeps it open, so it never falls silent.',
    ],
    {
      stages: {
        slow: ['lfo', 'Slow', { shape: 'sine', rateHz: 5 }],
        voice: tone(220),
        amp: ['vca', 'Amp', { cvAmount: 0.3, bias: 3.5 }],
        out: out(),
      },
      cables: ['slow.out > amp.cv', 'voice.triangle > amp.in', 'amp.out > out.left'],
      settings: { duration: 2 },
      targets: [{ at: 'amp.cv', want: 'range', quantity: 'volts', low: 2, high: 5 }],
    },
  ),
  recipe(
    [
      'duck-trigger',
      'Ducking from the trigger',
      'Level',
      'Turn Dip envelope’s decay for a longer dip; Inverted depth’s gain for a deeper one.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 100, width: 0.2 }],
        contour: ['envelope', 'Dip envelope', { mode: 'ad', attack: 0.02, decay: 0.35, peakVolts: 8 }],
        over: ['offset', 'Inverted depth', { amount: -0.5, volts: 5 }],
        band: tone(110, 'Band'),
        amp: ['vca', 'Amp'],
        out: out(),
      },
      cables: [
        'beat.out > contour.gate',
        'contour.out > over.in',
        'over.out > amp.cv',
        'band.saw > amp.in',
        'amp.out > out.left',
      ],
      settings: { duration: 3 },
      targets: [{ at: 'amp.cv', want: 'range', quantity: 'volts', low: 1, high: 5 }],
    },
  ),
  recipe(
    [
      'duck-sound',
      'Ducking from the audio signal',
      'Level',
      'Turn Listens’ release for a slower return; Inverted depth’s gain for a deeper dip.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 100, width: 0.15 }],
        thump: tone(60, 'Thump'),
        shape: ['envelope', 'Thump’s contour', { mode: 'ad', attack: 0.02, decay: 0.2, peakVolts: 5 }],
        hit: ['vca', 'Thump’s amp'],
        listens: ['follower', 'Listens', { attack: 0.02, release: 0.25 }],
        over: ['offset', 'Inverted depth', { amount: -0.8, volts: 5 }],
        band: tone(164.814, 'Band'),
        amp: ['vca', 'Amp'],
        out: out(),
      },
      cables: [
        'beat.out > shape.gate',
        'shape.out > hit.cv',
        'thump.sine > hit.in',
        'hit.out > listens.in',
        'listens.out > over.in',
        'over.out > amp.cv',
        'band.saw > amp.in',
        'amp.out > out.left',
        'hit.out > out.right',
      ],
      settings: { duration: 3 },
    },
  ),
  recipe(
    [
      'louder-high',
      'Higher notes play louder',
      'Level',
      'Turn Height’s gain to set how much louder high notes get, and its offset to set the level of the lowest.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 120 }],
        notes: ['sequencer', 'Notes', line(0, 1, 0.5, 1.5)],
        height: ['offset', 'Height', { amount: 2, maxAmount: 2, volts: 2 }],
        contour: ['envelope', 'Dip envelope', { mode: 'ad', attack: 0.02, decay: 0.3, followsLevel: true }],
        voice: tone(220),
        amp: ['vca', 'Amp'],
        out: out(),
      },
      cables: [
        'beat.out > notes.clock',
        'notes.gate > contour.gate',
        'notes.cv > height.in',
        'notes.cv > voice.pitch',
        'height.out > contour.level',
        'contour.out > amp.cv',
        'voice.triangle > amp.in',
        'amp.out > out.left',
      ],
      settings: { duration: 4 },
      targets: [{ at: 'contour.level', want: 'range', quantity: 'volts', low: 2, high: 5 }],
    },
  ),
  recipe(
    [
      'level-pedal',
      'Volume pedal',
      'Level',
      'Move Pedal from 0 to 5 V. With an exponential VCA, equal moves sound like equal changes in loudness.',
    ],
    {
      stages: {
        pedal: ['constant', 'Pedal', { volts: 3.5, lowVolts: 0 }],
        voice: tone(196),
        amp: ['vca', 'Amp', { response: 1 }],
        out: out(),
      },
      cables: ['pedal.out > amp.cv', 'voice.saw > amp.in', 'amp.out > out.left'],
      settings: { duration: 1 },
    },
  ),
  recipe(
    [
      'ring-am',
      'Ring modulation and AM compared',
      'Level',
      'Turn Other’s frequency. Left: ring modulation, only sum and difference remain. Right: AM, the original tone stays.',
    ],
    {
      stages: {
        voice: tone(440),
        other: tone(90, 'Other'),
        ring: ['ringMod', 'Ring', { coupling: 'dc' }],
        amp: ['vca', 'Amplitude', { cvAmount: 0.5, bias: 2.5 }],
        out: out(),
      },
      cables: [
        'voice.sine > ring.a',
        'other.sine > ring.b',
        'voice.sine > amp.in',
        'other.sine > amp.cv',
        'ring.out > out.left',
        'amp.out > out.right',
      ],
      settings: { duration: 0.5 },
    },
  ),
];
