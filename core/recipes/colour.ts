import { out, recipe, tone } from './types';
import type { Recipe } from './types';

export const colour: readonly Recipe[] = [
  recipe(
    [
      'opposite-filters',
      'Two filters in opposition from one depth knob',
      'Timbre',
      'Turn Depth: both move further, one opening as the other closes.',
    ],
    {
      stages: {
        slow: ['lfo', 'Slow', { shape: 'sine', rateHz: 0.5 }],
        depth: ['attenuverter', 'Depth', { amount: 0.4 }],
        flip: ['inverter', 'Other way'],
        voice: tone(110),
        one: ['filter', 'One', { cutoffHz: 600 }],
        two: ['filter', 'Two', { cutoffHz: 600 }],
        out: out(),
      },
      cables: [
        'slow.out > depth.in',
        'depth.out > one.cutoff',
        'depth.out > flip.in',
        'flip.out > two.cutoff',
        'voice.saw > one.in',
        'voice.saw > two.in',
        'one.lowpass > out.left',
        'two.lowpass > out.right',
      ],
      settings: { duration: 4 },
      targets: [
        { at: 'one.cutoff', want: 'range', quantity: 'frequency', low: 150, high: 2400 },
        { at: 'two.cutoff', want: 'range', quantity: 'frequency', low: 150, high: 2400 },
      ],
    },
  ),
  recipe(
    [
      'round-square',
      'A square smoothed by slew',
      'Timbre',
      'Turn Round’s rise and fall. Short gives a click; long, a slow swell that never reaches its limits.',
    ],
    {
      stages: {
        slow: ['lfo', 'Square', { shape: 'pulse', rateHz: 1, lowVolts: 0, highVolts: 3 }],
        round: ['slew', 'Round', { law: 'rc', rise: 0.3, fall: 0.3 }],
        voice: tone(110),
        soft: ['filter', 'Soft', { cutoffHz: 250 }],
        out: out(),
      },
      cables: ['slow.out > round.in', 'round.out > soft.cutoff', 'voice.saw > soft.in', 'soft.lowpass > out.left'],
      settings: { duration: 4 },
    },
  ),
  recipe(
    [
      'two-speeds',
      'A crossfade between two speeds',
      'Timbre',
      'Move Which from 0 V (slow LFO) to 5 V (fast LFO), or anywhere between.',
    ],
    {
      stages: {
        slow: ['lfo', 'Slow', { rateHz: 0.4 }],
        quick: ['lfo', 'Quick', { rateHz: 6 }],
        which: ['constant', 'Which', { volts: 2, lowVolts: 0 }],
        fade: ['crossfade', 'Fade', { position: 0, cvAmount: 1, fullVolts: 5 }],
        depth: ['attenuverter', 'Depth', { amount: 0.3 }],
        voice: tone(110),
        soft: ['filter', 'Soft', { cutoffHz: 700 }],
        out: out(),
      },
      cables: [
        'slow.out > fade.in',
        'quick.out > fade.in2',
        'which.out > fade.cv',
        'fade.out > depth.in',
        'depth.out > soft.cutoff',
        'voice.saw > soft.in',
        'soft.lowpass > out.left',
      ],
      settings: { duration: 5 },
    },
  ),
  recipe(
    [
      'wave-shaping',
      'Wave shaping by a voltage',
      'Timbre',
      'Turn Drive’s bias and CV amount to push the wave further into folding.',
    ],
    {
      stages: {
        slow: ['lfo', 'Slow', { shape: 'sine', rateHz: 0.5 }],
        voice: tone(110),
        drive: ['vca', 'Drive', { cvAmount: 0.4, bias: 3 }],
        fold: ['shaper', 'Fold', { gain: 2, clipVolts: 5, folds: 3 }],
        out: out(),
      },
      cables: ['slow.out > drive.cv', 'voice.sine > drive.in', 'drive.out > fold.in', 'fold.out > out.left'],
      settings: { duration: 4 },
    },
  ),
];
