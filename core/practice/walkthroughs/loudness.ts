import { ofRecipe, step } from './build';
import type { BuiltWalkthrough } from './build';

export const loudness: readonly BuiltWalkthrough[] = [
  ofRecipe('tremolo', [
    step(
      'A VCA sets the level of a tone, and a sine LFO moves the VCA. The LFO is bipolar: half of it lies below 0 V.',
      {
        at: 'amp.cv',
        look: ['slow.out', 'low'],
      },
    ),
    step('CV amount takes a share of that swing, and the VCA’s bias lifts it. What is left never closes the VCA.', {
      look: ['amp.cv', 'readingLow'],
    }),
    step('Without the bias the swing is centred on 0 V again. Whatever is below 0 V is silence: half of every cycle.', {
      set: { 'amp.bias': 0 },
      look: ['amp.cv', 'closedPercent'],
      ask: ['The bias goes down to 0 V. For what share of the time is the VCA closed?', 'amp.cv', 'closedPercent'],
    }),
    step('Bias back up: open throughout.', { set: { 'amp.bias': 3.5 }, look: ['amp.cv', 'closedPercent'] }),
    step(
      'More CV amount is a deeper tremolo. The lowest point now touches 0 V; the highest is over unity, louder than the tone itself.',
      { set: { 'amp.cvAmount': 0.7 }, look: ['amp.cv', 'readingHigh'] },
    ),
    step('Shallow and fast: a shiver that never falls silent. Turn Amp’s CV amount and Slow’s rate yourself.', {
      set: { 'amp.cvAmount': 0.2, 'slow.rateHz': 8 },
      look: ['amp.cv', 'readingLow'],
    }),
  ]),
  ofRecipe('duck-trigger', [
    step('Each beat starts an envelope. Nothing but the clock decides when, so every envelope is the same.', {
      at: 'amp.cv',
      look: ['contour.out', 'high'],
    }),
    step('Inverted depth halves it and turns it over; its offset of 5 V keeps the VCA fully open between beats.', {
      look: ['amp.cv', 'readingHigh'],
    }),
    step('On each beat the control voltage dips, and the sound with it. That is ducking.', {
      look: ['amp.cv', 'readingLow'],
    }),
    step('Half the gain is half the dip: 8 V times −0.25, on top of 5 V.', {
      set: { 'over.amount': -0.25 },
      look: ['amp.cv', 'low'],
      ask: ['The gain goes from −0.5 to −0.25. How low does the voltage at Amp’s CV get?', 'amp.cv', 'low'],
    }),
    step('Too much gain and the dip goes below 0 V: the sound drops out altogether.', {
      set: { 'over.amount': -0.8 },
      look: ['amp.cv', 'closedPercent'],
    }),
    step('Depth back, and a longer decay: the sound takes its time to come back up.', {
      set: { 'over.amount': -0.5, 'contour.decay': 0.5 },
      pins: ['contour.out', 'over.out'],
      look: ['amp.cv', 'mean'],
    }),
  ]),
  ofRecipe('duck-sound', [
    step('Here the dip comes from the sound itself. A follower turns the level of the thump into a voltage.', {
      at: 'amp.cv',
      pins: ['hit.out', 'listens.out'],
      look: ['listens.out', 'high'],
    }),
    step('Inverted depth turns that over and adds 5 V: the louder the thump, the lower the control voltage.', {
      look: ['amp.cv', 'readingLow'],
    }),
    step('The release is how long the follower remembers. Short, and the sound comes straight back.', {
      set: { 'listens.release': 0.1 },
      pins: ['listens.out', 'over.out'],
      look: ['amp.cv', 'mean'],
    }),
    step('Long, and the dip runs on into the next beat: the VCA is rarely open.', {
      set: { 'listens.release': 1 },
      look: ['amp.cv', 'mean'],
    }),
    step('A slow attack misses the start of the thump, and never climbs to its full level: the dip gets shallower.', {
      set: { 'listens.release': 0.25, 'listens.attack': 0.3 },
      look: ['amp.cv', 'readingLow'],
    }),
    step(
      'A quick attack again, and a thump half as loud. From the sound, the dip is only as deep as the thump is loud.',
      {
        set: { 'listens.attack': 0.02, 'shape.peakVolts': 2.5 },
        pins: ['hit.out', 'over.out'],
        look: ['amp.cv', 'readingLow'],
      },
    ),
  ]),
  ofRecipe('louder-high', [
    step('The voltages that set the pitch also go to Height, which scales them and adds 2 V.', {
      at: 'contour.level',
      look: ['contour.level', 'high'],
    }),
    step('The envelope’s peak follows its Level input: the highest note gets the highest peak.', {
      at: 'amp.cv',
      pins: ['notes.cv', 'contour.out'],
      look: ['amp.cv', 'readingHigh'],
    }),
    step('Half the gain: the notes differ less, and the lowest stays where the offset puts it.', {
      set: { 'height.amount': 1 },
      at: 'contour.level',
      look: ['contour.level', 'high'],
      ask: [
        'The highest note is 1.5 V. Height’s gain goes to 1, its offset is 2 V. What arrives at Level?',
        'contour.level',
        'high',
      ],
    }),
    step('With no gain only the offset is left: every note is as loud as the next.', {
      set: { 'height.amount': 0 },
      at: 'amp.cv',
      look: ['contour.level', 'peakToPeak'],
    }),
    step('A negative gain turns it round: low notes are loud and high ones soft.', {
      set: { 'height.amount': -2, 'height.volts': 5 },
      pins: ['notes.cv', 'contour.out'],
      look: ['contour.level', 'low'],
    }),
    step('And back: higher is louder, from 2 V for the lowest note.', {
      set: { 'height.amount': 2, 'height.volts': 2 },
      look: ['contour.level', 'low'],
    }),
  ]),
  ofRecipe('level-pedal', [
    step('A pedal is a voltage that a foot moves, here from 0 to 5 V. The VCA’s response is exponential.', {
      at: 'amp.cv',
      look: ['amp.cv', 'readingLow'],
    }),
    step('Down by one volt.', { set: { 'pedal.volts': 2.5 }, look: ['amp.cv', 'readingLow'] }),
    step('And by another: about as many dB again. Equal moves sound like equal changes of loudness.', {
      set: { 'pedal.volts': 1.5 },
      look: ['amp.cv', 'readingLow'],
    }),
    step('The same VCA with a linear response: at the same voltage it is far less quiet.', {
      set: { 'amp.response': 0 },
      look: ['amp.cv', 'readingLow'],
    }),
    step('Linear, half of the voltage is half of the gain, and that is 6 dB.', {
      set: { 'pedal.volts': 2.5 },
      look: ['amp.cv', 'readingLow'],
      ask: ['Linear, and fully open at 5 V. The pedal goes to 2.5 V: how many dB?', 'amp.cv', 'readingLow'],
    }),
    step('Most of a linear fade lies in the last half volt. A foot finds that hard to place.', {
      set: { 'pedal.volts': 0.25 },
      look: ['amp.cv', 'readingLow'],
    }),
    step('Exponential again, and fully up: unity.', {
      set: { 'amp.response': 1, 'pedal.volts': 5 },
      look: ['amp.cv', 'readingHigh'],
    }),
  ]),
  ofRecipe('ring-am', [
    step('Two sines: Tone at 440 Hz, Other at 90 Hz. On the left a ring modulator multiplies them.', {
      at: 'ring.b',
      pins: ['ring.out'],
      look: ['ring.out', 'peakToPeak'],
    }),
    step(
      'It has four quadrants: while Other is below 0 V, Tone comes out inverted. Neither 440 nor 90 Hz is left, only 350 and 530 Hz.',
      { pins: ['other.sine', 'ring.out'], look: ['ring.out', 'rms'] },
    ),
    step(
      'On the right a VCA does it with bias: Other is lifted above 0 V, so Tone is never inverted and stays in the sound.',
      {
        at: 'amp.cv',
        pins: ['other.sine', 'amp.out'],
        look: ['amp.cv', 'closedPercent'],
      },
    ),
    step('Without bias half of every cycle is cut off. A two-quadrant VCA does not go below zero.', {
      set: { 'amp.bias': 0 },
      look: ['amp.cv', 'closedPercent'],
    }),
    step('Bias back, less CV amount: the sidebands sink, the original tone stays.', {
      set: { 'amp.bias': 2.5, 'amp.cvAmount': 0.2 },
      look: ['amp.cv', 'readingLow'],
    }),
    step(
      'With Other at a few Hz both turn into movement: tremolo on the right; on the left, two swells for each cycle.',
      {
        set: { 'other.baseHz': 5, 'amp.cvAmount': 0.5 },
        pins: ['ring.out', 'amp.out'],
        look: ['amp.cv', 'readingHigh'],
      },
    ),
  ]),
];
