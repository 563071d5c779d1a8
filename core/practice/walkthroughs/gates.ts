import { ofRecipe, step } from './build';
import type { BuiltWalkthrough } from './build';

export const gates: readonly BuiltWalkthrough[] = [
  ofRecipe('one-fader', [
    step('One fader, three destinations. Each has a stage of its own that says how far, and from where.', {
      at: 'soft.cutoff',
      look: ['soft.cutoff', 'readingHigh'],
    }),
    step('Fader down: the filter rests at its own cutoff.', {
      set: { 'fader.volts': 0 },
      look: ['soft.cutoff', 'readingHigh'],
    }),
    step('The level does not fall to nothing: its offset holds the VCA a little open.', {
      at: 'amp.cv',
      look: ['amp.cv', 'readingLow'],
    }),
    step('Fader up: the cutoff climbs by four octaves.', {
      set: { 'fader.volts': 5 },
      at: 'soft.cutoff',
      look: ['soft.cutoff', 'readingHigh'],
    }),
    step('The echo gets longer at the same time: its time doubles with every volt that arrives.', {
      at: 'echo.time',
      look: ['echo.time', 'readingHigh'],
    }),
    step('Half the gain is half the octaves. The other two destinations do not notice.', {
      set: { 'bright.amount': 0.4 },
      at: 'soft.cutoff',
      look: ['soft.cutoff', 'readingHigh'],
      ask: [
        'Cutoff 200 Hz, the fader at 5 V, and Brightness goes to 0.4. How high does the filter open?',
        'soft.cutoff',
        'readingHigh',
      ],
    }),
    step('A negative gain goes the other way: this filter closes as everything else opens.', {
      set: { 'bright.amount': -0.4, 'soft.cutoffHz': 2000 },
      look: ['soft.cutoff', 'readingLow'],
    }),
  ]),
  ofRecipe('accents', [
    step('Every step has a weight in volts. Over is high where that weight is over its threshold.', {
      at: 'amp.cv',
      pins: ['weights.cv', 'over.out'],
      look: ['over.out', 'mean'],
    }),
    step('There, and only there, a second envelope joins the first.', {
      pins: ['contour.out', 'accent.out'],
      look: ['amp.cv', 'readingHigh'],
    }),
    step('A higher threshold: only the heaviest steps are accented.', {
      set: { 'over.thresholdVolts': 3.5 },
      pins: ['weights.cv', 'accent.out'],
      look: ['accent.out', 'rms'],
    }),
    step('Below every weight, all steps are accented, and none stands out.', {
      set: { 'over.thresholdVolts': 0.5 },
      look: ['accent.out', 'rms'],
    }),
    step('Join’s second gain says by how much: 3 V, and a share of the accent’s 2 V.', {
      set: { 'over.thresholdVolts': 2.5, 'join.gain2': 0.5 },
      look: ['amp.cv', 'high'],
      ask: [
        'The envelope peaks at 3 V, the accent at 2 V. Its gain goes to 0.5: how high is an accented step?',
        'amp.cv',
        'high',
      ],
    }),
    step('A sum adds up. With a 5 V envelope the accent goes over unity: louder than the tone itself.', {
      set: { 'join.gain2': 1, 'contour.peakVolts': 5 },
      look: ['amp.cv', 'readingHigh'],
    }),
  ]),
  ofRecipe('hanging-notes', [
    step('A stepped voltage goes from note to note and never back to 0 V. Used as a gate, it stays high.', {
      at: 'contour.gate',
      pins: ['notes.cv', 'cut.out'],
      look: ['notes.cv', 'low'],
    }),
    step('Multiplied by the gate it falls to 0 V after every step.', { look: ['cut.out', 'low'] }),
    step('So the envelope is released after every note, and starts anew with the next.', {
      at: 'amp.cv',
      pins: ['cut.out', 'contour.out'],
      look: ['amp.cv', 'low'],
    }),
    step('Hold the multiplier open with its bias, and the notes hang: the envelope never lets go.', {
      set: { 'cut.bias': 5 },
      look: ['amp.cv', 'low'],
    }),
    step('Bias back: every note ends.', { set: { 'cut.bias': 0 }, look: ['amp.cv', 'low'] }),
    step('A wider gate is a longer note. At 0.8 the release only just has time.', {
      set: { 'beat.width': 0.8 },
      look: ['amp.cv', 'mean'],
    }),
  ]),
  ofRecipe('gated-slow', [
    step('An LFO runs all the time. A VCA lets it through while the gate is high.', {
      at: 'soft.cutoff',
      pins: ['beat.out', 'through.out'],
      look: ['through.out', 'high'],
    }),
    step('The gate is 5 V and so is the VCA’s unity: what passes is the LFO, as high as it was.', {
      look: ['slow.out', 'high'],
    }),
    step('A narrower gate: a shorter wobble, and longer rest at the filter’s own cutoff.', {
      set: { 'beat.width': 0.2 },
      look: ['soft.cutoff', 'readingHigh'],
    }),
    step('Depth sets how far it goes: at 0.2, an octave each way.', {
      set: { 'beat.width': 0.5, 'depth.amount': 0.2 },
      look: ['soft.cutoff', 'readingHigh'],
      ask: [
        'Cutoff 500 Hz, an LFO of ±5 V, and Depth goes to 0.2. How high does the filter open?',
        'soft.cutoff',
        'readingHigh',
      ],
    }),
    step('An 8 V gate opens a 5 V VCA beyond unity: the wobble gets wider, without Depth being touched.', {
      set: { 'beat.highVolts': 8 },
      look: ['soft.cutoff', 'readingHigh'],
    }),
    step('Back to 5 V, and half as fast.', {
      set: { 'beat.highVolts': 5, 'slow.rateHz': 4, 'depth.amount': 0.3 },
      look: ['soft.cutoff', 'readingHigh'],
    }),
  ]),
];
