import { out, tone } from '../../recipes/types';
import { basics, step } from './build';
import type { BuiltWalkthrough } from './build';

/** VCAs: what closes them, what opens them, and how it sounds in between. */
export const amplifiers: readonly BuiltWalkthrough[] = [
  basics(
    [
      'bipolar-into-vca',
      'A bipolar LFO into a VCA',
      'A VCA answers to positive voltage only. What becomes of an LFO that spends half of its time below 0 V.',
    ],
    {
      stages: {
        slow: ['lfo', 'Slow', { rateHz: 1 }],
        voice: tone(220),
        amp: ['vca', 'Amp'],
        out: out(),
      },
      cables: ['slow.out > amp.cv', 'voice.triangle > amp.in', 'amp.out > out.left'],
      settings: { duration: 4 },
    },
    [
      step('A triangle of ±5 V opens a VCA that is fully open at 5 V. While it is below 0 V nothing is heard.', {
        at: 'amp.cv',
        pins: ['slow.out', 'amp.out'],
        look: ['amp.cv', 'closedPercent'],
      }),
      step('The VCA’s bias adds to the control voltage. Half way up, the sound is gone for a quarter of the time.', {
        set: { 'amp.bias': 2.5 },
        look: ['amp.cv', 'closedPercent'],
        ask: [
          'The bias goes to 2.5 V, the triangle stays at ±5 V. For what share of the time is the VCA closed?',
          'amp.cv',
          'closedPercent',
        ],
      }),
      step('5 V of bias lifts even the lowest point to 0 V. Yet the highest is 10 V now: twice unity, 6 dB over.', {
        set: { 'amp.bias': 5 },
        look: ['amp.cv', 'readingHigh'],
      }),
      step('Half the CV amount with half the bias: from 0 to 5 V, just what the VCA wants.', {
        set: { 'amp.cvAmount': 0.5, 'amp.bias': 2.5 },
        look: ['amp.cv', 'readingHigh'],
      }),
      step('To keep it from closing, take less swing and more bias: from 2 to 5 V.', {
        set: { 'amp.cvAmount': 0.3, 'amp.bias': 3.5 },
        look: ['amp.cv', 'readingLow'],
        ask: [
          'CV amount 0.3 and bias 3.5 V make 2 to 5 V. How many dB is the lowest point, where 5 V is fully open?',
          'amp.cv',
          'readingLow',
        ],
      }),
      step('A unipolar LFO, from 0 to 5 V, needs none of that.', {
        set: { 'slow.lowVolts': 0, 'amp.cvAmount': 1, 'amp.bias': 0 },
        look: ['amp.cv', 'closedPercent'],
      }),
      step('A four-quadrant VCA does answer below 0 V: the sound comes back, inverted. That is a ring modulator.', {
        set: { 'slow.lowVolts': -5, 'amp.quadrants': 4 },
        pins: ['slow.out', 'amp.out'],
        look: ['amp.out', 'rms'],
      }),
      step(
        'Two quadrants again, and the setting that fits. Turn the bias down slowly and watch where the hatching begins.',
        {
          set: { 'amp.quadrants': 2, 'amp.cvAmount': 0.5, 'amp.bias': 2.5 },
          look: ['amp.cv', 'closedPercent'],
        },
      ),
    ],
  ),
  basics(
    [
      'linear-and-exponential',
      'Linear and exponential response',
      'The same envelope through two VCAs. Why a curved envelope belongs with one, and a straight one with the other.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 60, width: 0.3 }],
        contour: ['envelope', 'Envelope', { mode: 'ad', attack: 0.01, decay: 0.7, decayCurve: 0.6, peakVolts: 5 }],
        voice: tone(220),
        lin: ['vca', 'Linear', { response: 0 }],
        exp: ['vca', 'Exponential', { response: 1 }],
        out: out(),
      },
      cables: [
        'beat.out > contour.gate',
        'contour.out > lin.cv',
        'contour.out > exp.cv',
        'voice.triangle > lin.in',
        'voice.triangle > exp.in',
        'lin.out > out.left',
        'exp.out > out.right',
      ],
      settings: { duration: 3 },
    },
    [
      step('One envelope opens two VCAs, a linear one on the left and an exponential one on the right.', {
        at: 'lin.cv',
        pins: ['lin.out', 'exp.out'],
        look: ['lin.cv', 'readingHigh'],
      }),
      step('Where the voltage is full they agree. At half of it a linear VCA is at half of its gain.', {
        set: { 'contour.peakVolts': 2.5 },
        look: ['lin.cv', 'readingHigh'],
        ask: ['The envelope now peaks at 2.5 V. How loud does the linear VCA get, in dB?', 'lin.cv', 'readingHigh'],
      }),
      step('The exponential one is far further down at the same voltage.', {
        at: 'exp.cv',
        look: ['exp.cv', 'readingHigh'],
      }),
      step('Full height again: both reach unity.', {
        set: { 'contour.peakVolts': 5 },
        look: ['exp.cv', 'readingHigh'],
      }),
      step(
        'This envelope’s decay is curved, fast and then slow. Through the linear VCA that fades evenly in dB, as a struck thing does.',
        {
          at: 'lin.cv',
          pins: ['contour.out', 'lin.out'],
          look: ['lin.out', 'rms'],
        },
      ),
      step('Through the exponential one the two curves multiply: the note drops away almost at once.', {
        at: 'exp.cv',
        pins: ['contour.out', 'exp.out'],
        look: ['exp.out', 'rms'],
      }),
      step('A straight decay suits the exponential VCA: so many volts a second are so many dB a second.', {
        set: { 'contour.decayCurve': 0 },
        look: ['exp.out', 'rms'],
      }),
      step('The same straight line through the linear VCA hangs on, and then stops dead.', {
        at: 'lin.cv',
        pins: ['contour.out', 'lin.out'],
        look: ['lin.out', 'rms'],
      }),
      step(
        'An exponential VCA wants its whole range. One that opens at 10 V, with an envelope of 8 V, never gets near unity.',
        {
          set: { 'contour.peakVolts': 8, 'exp.unityVolts': 10 },
          at: 'exp.cv',
          look: ['exp.cv', 'readingHigh'],
        },
      ),
    ],
  ),
  basics(
    [
      'true-zero',
      'The VCA’s true zero',
      'A VCA that is not quite closed leaks, and one that is too far closed swallows the start of a note.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 60, width: 0.3 }],
        contour: ['envelope', 'Envelope', { mode: 'ad', attack: 0.1, decay: 0.4, peakVolts: 5 }],
        voice: tone(220),
        amp: ['vca', 'Amp', { bias: 0.6 }],
        out: out(),
      },
      cables: ['beat.out > contour.gate', 'contour.out > amp.cv', 'voice.triangle > amp.in', 'amp.out > out.left'],
      settings: { duration: 4 },
    },
    [
      step(
        'The envelope rests at 0 V, but between the notes the tone goes on: the VCA’s bias stands a little above zero.',
        {
          at: 'amp.cv',
          pins: ['contour.out', 'amp.out'],
          look: ['amp.cv', 'readingLow'],
        },
      ),
      step('Half of that bias is 6 dB less of leak, and no more.', {
        set: { 'amp.bias': 0.3 },
        look: ['amp.cv', 'readingLow'],
        ask: ['The bias goes to 0.3 V; fully open is 5 V. How many dB does it leak at rest?', 'amp.cv', 'readingLow'],
      }),
      step('At 0 V it is closed between the notes, half of the time.', {
        set: { 'amp.bias': 0 },
        look: ['amp.cv', 'closedPercent'],
      }),
      step(
        'Below zero it stays closed for longer: the envelope has to climb first. Slow attacks lose their start, and the peak its height.',
        {
          set: { 'amp.bias': -1 },
          look: ['amp.cv', 'closedPercent'],
        },
      ),
      step('Not every VCA begins at 0 V. This one stays closed up to half a volt.', {
        set: { 'amp.bias': 0, 'amp.deadVolts': 0.5 },
        look: ['amp.cv', 'closedPercent'],
      }),
      step(
        'So its true zero is a bias of 0.5 V. On a real panel: turn the bias down until the sound just stops, and leave it there.',
        {
          set: { 'amp.bias': 0.5 },
          look: ['amp.cv', 'closedPercent'],
        },
      ),
      step('An envelope may not come down to 0 V either. 0.2 V of rest leak just as a bias does.', {
        set: { 'amp.bias': 0, 'amp.deadVolts': 0, 'contour.restVolts': 0.2 },
        look: ['amp.cv', 'readingLow'],
      }),
      step('The cure is the same knob: a bias of −0.2 V takes it back out.', {
        set: { 'amp.bias': -0.2 },
        look: ['amp.cv', 'closedPercent'],
      }),
    ],
  ),
  basics(
    [
      'unity-at-5-8-and-10',
      'Unity at 5, 8 and 10 V',
      'Envelopes peak at one voltage, VCAs open at another. What that does to the level, and which knob makes them meet.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 60, width: 0.3 }],
        contour: ['envelope', 'Envelope', { mode: 'ad', attack: 0.02, decay: 0.5, peakVolts: 8 }],
        voice: tone(220),
        amp: ['vca', 'Amp'],
        out: out(),
      },
      cables: ['beat.out > contour.gate', 'contour.out > amp.cv', 'voice.triangle > amp.in', 'amp.out > out.left'],
      settings: { duration: 3 },
    },
    [
      step('The envelope peaks at 8 V, the VCA is fully open at 5 V. So the peak is over unity.', {
        at: 'amp.cv',
        look: ['amp.cv', 'readingHigh'],
      }),
      step('CV amount is a share: 5 of 8 is 62.5%, and the peak comes to unity.', {
        set: { 'amp.cvAmount': 0.625 },
        look: ['amp.cv', 'readingHigh'],
      }),
      step('Or an envelope that peaks at 5 V, with CV amount fully up. At rest and at its peak it is the same.', {
        set: { 'amp.cvAmount': 1, 'contour.peakVolts': 5 },
        look: ['amp.cv', 'readingHigh'],
      }),
      step('The same envelope into a VCA that opens at 8 V: now it falls short.', {
        set: { 'amp.unityVolts': 8 },
        look: ['amp.cv', 'readingHigh'],
      }),
      step('And into one that opens at 10 V: half of the way is half of the gain.', {
        set: { 'amp.unityVolts': 10 },
        look: ['amp.cv', 'readingHigh'],
        ask: [
          'An envelope of 5 V, a linear VCA that is fully open at 10 V. How many dB at the peak?',
          'amp.cv',
          'readingHigh',
        ],
      }),
      step('With an exponential response the same shortfall costs far more.', {
        set: { 'amp.response': 1 },
        look: ['amp.cv', 'readingHigh'],
      }),
      step('Even 8 V into 10 V leaves it many dB short.', {
        set: { 'contour.peakVolts': 8 },
        look: ['amp.cv', 'readingHigh'],
      }),
      step(
        'The whole range, 10 V, and it opens fully. An attenuator can only take away; what is missing must be amplified.',
        {
          set: { 'contour.peakVolts': 10 },
          look: ['amp.cv', 'readingHigh'],
        },
      ),
      step(
        'Unity belongs to each module: read its manual, or measure where out equals in. Then make the peak meet it.',
        {
          set: { 'amp.response': 0, 'amp.unityVolts': 5, 'contour.peakVolts': 5 },
          look: ['amp.cv', 'readingHigh'],
        },
      ),
    ],
  ),
];
