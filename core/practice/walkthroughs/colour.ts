import { ofRecipe, step } from './build';
import type { BuiltWalkthrough } from './build';

export const colour: readonly BuiltWalkthrough[] = [
  ofRecipe('opposite-filters', [
    step('One LFO moves two filters. Depth sets how far both of them go.', {
      at: 'one.cutoff',
      look: ['one.cutoff', 'readingHigh'],
    }),
    step('The second gets the same voltage inverted: as one opens, the other closes.', {
      at: 'two.cutoff',
      pins: ['depth.out', 'flip.out'],
      look: ['two.cutoff', 'readingLow'],
    }),
    step('Half the depth is half as many octaves: one up and one down.', {
      set: { 'depth.amount': 0.2 },
      at: 'one.cutoff',
      look: ['one.cutoff', 'readingHigh'],
      ask: [
        'Cutoff 600 Hz, an LFO of ±5 V, and Depth goes to 0.2. How high does the filter open?',
        'one.cutoff',
        'readingHigh',
      ],
    }),
    step('Depth at 0: both stand still where their own knobs are.', {
      set: { 'depth.amount': 0 },
      look: ['one.cutoff', 'readingHigh'],
    }),
    step('Below 0 they change places: the first now closes as the LFO rises.', {
      set: { 'depth.amount': -0.4 },
      pins: ['slow.out', 'depth.out'],
      look: ['one.cutoff', 'readingLow'],
    }),
    step('Each has a base of its own. With the second’s cutoff higher, the two no longer meet in the middle.', {
      set: { 'depth.amount': 0.4, 'two.cutoffHz': 1200 },
      at: 'two.cutoff',
      look: ['two.cutoff', 'readingHigh'],
    }),
  ]),
  ofRecipe('round-square', [
    step('A square wave jumps between two voltages. Sent straight to a filter, each jump would click.', {
      at: 'soft.cutoff',
      pins: ['slow.out', 'round.out'],
      look: ['slow.out', 'peakToPeak'],
    }),
    step('The slew limiter bends every edge. At 0.3 s the wave still gets to both ends.', {
      look: ['round.out', 'peakToPeak'],
    }),
    step('Two seconds: it turns back before it arrives, and the swing shrinks. Smoothing eats amplitude.', {
      set: { 'round.rise': 2, 'round.fall': 2 },
      look: ['round.out', 'peakToPeak'],
    }),
    step('To get the range back, feed it more: a higher square, the same slew.', {
      set: { 'slow.highVolts': 5 },
      look: ['round.out', 'peakToPeak'],
    }),
    step('Rise and fall apart: up at once, down slowly, like something struck.', {
      set: { 'slow.highVolts': 3, 'round.rise': 0.05, 'round.fall': 0.6 },
      look: ['soft.cutoff', 'readingHigh'],
    }),
    step('The rate matters as much. At 4 Hz even 0.3 s is too slow to arrive.', {
      set: { 'round.rise': 0.3, 'round.fall': 0.3, 'slow.rateHz': 4 },
      look: ['round.out', 'peakToPeak'],
    }),
  ]),
  ofRecipe('two-speeds', [
    step('Two LFOs, a slow and a fast one, meet in a crossfader.', {
      at: 'soft.cutoff',
      pins: ['slow.out', 'quick.out'],
      look: ['fade.out', 'peakToPeak'],
    }),
    step('A voltage sets the position between them: 0 V is the first input, 5 V the second.', {
      at: 'fade.cv',
      look: ['fade.cv', 'readingHigh'],
    }),
    step('At 0 V only the slow LFO is left.', {
      set: { 'which.volts': 0 },
      at: 'soft.cutoff',
      pins: ['fade.out'],
      look: ['soft.cutoff', 'readingHigh'],
    }),
    step('At 5 V only the fast one. The range is the same; what moves is the speed.', {
      set: { 'which.volts': 5 },
      look: ['soft.cutoff', 'readingHigh'],
    }),
    step('In the middle each is at half its height: the fast one rides on the slow one.', {
      set: { 'which.volts': 2.5 },
      pins: ['fade.out', 'slow.out'],
      ask: ['Which goes to 2.5 V. At what position does the crossfader stand?', 'fade.cv', 'readingHigh'],
      look: ['fade.out', 'rms'],
    }),
    step('Depth scales whatever the mix is.', {
      set: { 'depth.amount': 0.6 },
      look: ['soft.cutoff', 'readingHigh'],
    }),
  ]),
  ofRecipe('wave-shaping', [
    step('A sine goes through a VCA into a folder. The VCA decides how hard the folder is driven.', {
      at: 'drive.cv',
      pins: ['drive.out', 'fold.out'],
      look: ['drive.cv', 'readingHigh'],
    }),
    step('Driven gently, the sine passes. Driven hard, its tips are folded back: they never go over the clip level.', {
      look: ['fold.out', 'high'],
    }),
    step('More bias and less swing: folded all the time.', {
      set: { 'drive.bias': 4.5, 'drive.cvAmount': 0.1 },
      look: ['drive.cv', 'readingLow'],
    }),
    step('Less bias, more swing: from silence to folded and back.', {
      set: { 'drive.bias': 2, 'drive.cvAmount': 0.4 },
      look: ['drive.cv', 'readingHigh'],
    }),
    step('No folds: the same drive is simply clipped flat.', {
      set: { 'fold.folds': 0, 'drive.bias': 3 },
      pins: ['fold.out'],
      look: ['fold.out', 'peakToPeak'],
    }),
    step('Folds back, and a bias on the folder: top and bottom fold unequally, which adds even harmonics.', {
      set: { 'fold.folds': 3, 'fold.biasVolts': 1.5 },
      pins: ['fold.out'],
      look: ['fold.out', 'mean'],
    }),
  ]),
];
