import { out, recipe, tone } from './types';
import type { Recipe } from './types';

export const space: readonly Recipe[] = [
  recipe(
    [
      'stereo',
      'Movement from left to right',
      'Space and time',
      'Turn Slow’s rate: how fast it wanders; Pan’s cv amount: how far.',
    ],
    {
      stages: {
        slow: ['lfo', 'Slow', { shape: 'sine', rateHz: 0.5 }],
        voice: tone(220),
        pan: ['crossfade', 'Pan', { cvAmount: 1, law: 'equalPower' }],
        out: out(),
      },
      cables: ['slow.out > pan.cv', 'voice.triangle > pan.in', 'pan.a > out.left', 'pan.b > out.right'],
      settings: { duration: 4 },
    },
  ),
  recipe(
    [
      'quarter',
      'Two movements 90° apart',
      'Space and time',
      'Turn Slow’s rate: left swells first, right a quarter of a cycle later, always.',
    ],
    {
      stages: {
        slow: ['lfo', 'Slow', { shape: 'sine', rateHz: 0.5 }],
        voice: tone(165),
        left: ['vca', 'Left', { cvAmount: 0.5, bias: 2.5 }],
        right: ['vca', 'Right', { cvAmount: 0.5, bias: 2.5 }],
        out: out(),
      },
      cables: [
        'slow.out > left.cv',
        'slow.quadrature > right.cv',
        'voice.triangle > left.in',
        'voice.triangle > right.in',
        'left.out > out.left',
        'right.out > out.right',
      ],
      settings: { duration: 4 },
    },
  ),
  recipe(
    [
      'feedback',
      'Feedback kept in bounds',
      'Space and time',
      'Turn Back’s gain for more repeats. Below 1, each repeat is quieter than the last.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 40, width: 0.1 }],
        shape: ['envelope', 'Contour', { mode: 'ad', attack: 0.02, decay: 0.12, peakVolts: 5 }],
        voice: tone(330),
        hit: ['vca', 'Note'],
        join: ['mixer', 'Join', { inputs: 2, gain1: 0.6, gain2: 1 }],
        later: ['delay', 'Later', { seconds: 0.25, feedbackAmount: 0, mix: 1 }],
        back: ['attenuator', 'Back', { amount: 0.6 }],
        out: out(),
      },
      cables: [
        'beat.out > shape.gate',
        'shape.out > hit.cv',
        'voice.triangle > hit.in',
        'hit.out > join.in1',
        'join.out > later.in',
        'later.out > back.in',
        'back.out > join.in2',
        'join.out > out.left',
      ],
      settings: { duration: 3 },
    },
  ),
  recipe(
    [
      'send-return',
      'Send and return under control',
      'Space and time',
      'Move Send from 0 to 5 V: how much goes to the echo; Return’s second gain: how loud it comes back.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 60, width: 0.1 }],
        shape: ['envelope', 'Contour', { mode: 'ad', attack: 0.02, decay: 0.2, peakVolts: 5 }],
        voice: tone(262),
        hit: ['vca', 'Note'],
        hand: ['constant', 'Send', { volts: 3, lowVolts: 0 }],
        send: ['vca', 'Send amp'],
        echo: ['delay', 'Echo', { seconds: 0.3, feedbackAmount: 0.4, mix: 1 }],
        back: ['mixer', 'Return', { inputs: 2, gain1: 0.7, gain2: 0.5 }],
        out: out(),
      },
      cables: [
        'beat.out > shape.gate',
        'shape.out > hit.cv',
        'voice.triangle > hit.in',
        'hand.out > send.cv',
        'hit.out > send.in',
        'send.out > echo.in',
        'hit.out > back.in1',
        'echo.out > back.in2',
        'back.out > out.left',
      ],
      settings: { duration: 3 },
    },
  ),
];
