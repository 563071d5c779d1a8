import { out, tone } from '../../recipes/types';
import { basics, step } from './build';

/** The way that people take through the editor: target, solve, issues, sheet, hear. Played in the editor itself. */
export const tour = basics(
  ['tour', 'The tour', 'From a source to what arrives, a target, its knobs, and the patch sheet.'],
  {
    stages: {
      slow: ['lfo', 'Slow swell', { rateHz: 0.25 }],
      trim: ['attenuverter', 'Trim', { amount: 0.5 }],
      lift: ['offset', 'Lift'],
      voice: tone(110),
      soft: ['filter', 'Soft', { cutoffHz: 400 }],
      out: out(),
    },
    cables: [
      'slow.out > trim.in',
      'trim.out > lift.in',
      'lift.out > soft.cutoff',
      'voice.saw > soft.in',
      'soft.lowpass > out.left',
    ],
    targets: [{ at: 'soft.cutoff', want: 'range', quantity: 'frequency', low: 200, high: 3200 }],
    settings: { duration: 8 },
  },
  [
    step(
      'Each box is a stage on one voltage scale, from the source on the left to the destination on the right. The line above says what arrives there.',
    ),
    step(
      'A target says what you want there, in the destination’s own unit. You find it in the Destination tab. Type another maximum, for example 6 kHz, or keep it.',
      { task: 'target' },
    ),
    step(
      'Fenvo finds the knobs for it. Press the filled button above the path, or Solve for knob settings and Apply one of the solutions.',
      { task: 'solve' },
    ),
    step('What clips, stays closed or never arrives is listed under Issues, each with a suggested fix.', {
      task: 'issues',
    }),
    step(
      'The patch sheet takes it to the rack: each cable, each knob as a clock position, and what a meter must read. Open it when you are done here.',
      { task: 'sheet' },
    ),
    step('Turn your speakers or headphones down first. Then press Play, at the top, and hear the patch.', {
      task: 'listen',
    }),
  ],
);
