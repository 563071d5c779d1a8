import { line, out, tone } from '../../recipes/types';
import { basics, step } from './build';
import type { BuiltWalkthrough } from './build';

/** Time: slew, followers, gates. */
export const movement: readonly BuiltWalkthrough[] = [
  basics(
    [
      'slew-up-and-down',
      'Slew up and down, and a glide that arrives',
      'A slew limiter takes time to follow. How far it gets, what that does to the swing, and when a glide reaches its note.',
    ],
    {
      stages: {
        jump: ['lfo', 'Jump', { shape: 'pulse', rateHz: 0.5, lowVolts: 0, highVolts: 4 }],
        round: ['slew', 'Round', { law: 'linear' }],
        voice: tone(110),
        out: out(),
      },
      cables: ['jump.out > round.in', 'round.out > voice.pitch', 'voice.triangle > out.left'],
      settings: { duration: 8 },
    },
    [
      step('A square of 0 and 4 V, one second each: the pitch jumps four octaves and back.', {
        at: 'voice.pitch',
        pins: ['jump.out', 'round.out'],
        look: ['round.out', 'peakToPeak'],
      }),
      step(
        'Rise at 1 s. A linear slew limiter goes 10 V in that time, so four volts take 0.4 s: it arrives. It still drops at once.',
        {
          set: { 'round.rise': 1 },
          look: ['voice.pitch', 'high'],
        },
      ),
      step('Rise at 5 s goes two volts in a second, and after a second it has to turn back.', {
        set: { 'round.rise': 5 },
        look: ['voice.pitch', 'high'],
        ask: [
          'Rise 5 s: 10 V in five seconds. High for one second, from 0 V. How high does it get?',
          'voice.pitch',
          'high',
        ],
      }),
      step('Fall at 5 s too: up two volts, down two volts. The swing is half of what went in.', {
        set: { 'round.fall': 5 },
        look: ['round.out', 'peakToPeak'],
      }),
      step('The other law, RC: fast at first, ever slower near the end. With 1 s it has as good as arrived.', {
        set: { 'round.law': 'rc', 'round.rise': 1, 'round.fall': 1 },
        look: ['round.out', 'peakToPeak'],
      }),
      step('At 5 s it reaches neither end: the swing shrinks around its middle.', {
        set: { 'round.rise': 5, 'round.fall': 5 },
        look: ['round.out', 'peakToPeak'],
      }),
      step('What is lost can be made up before or behind it: twice the square is twice what comes out.', {
        set: { 'jump.highVolts': 8 },
        look: ['round.out', 'peakToPeak'],
      }),
      step('For pitch, shorten the slew until the glide ends on the note, well within the step.', {
        set: { 'jump.highVolts': 4, 'round.rise': 0.4, 'round.fall': 0.4 },
        look: ['voice.pitch', 'readingHigh'],
      }),
    ],
  ),
  basics(
    [
      'ducking-by-both-schools',
      'Ducking, by both schools',
      'A follower ducks by what is heard, an envelope by when it was played. One patch does both; a crossfader chooses.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 100, width: 0.15 }],
        thump: ['oscillator', 'Thump', { baseHz: 60 }],
        shape: ['envelope', 'Strike', { mode: 'ad', attack: 0.005, decay: 0.2, peakVolts: 5 }],
        hit: ['vca', 'Hit'],
        listens: ['follower', 'Follower', { attack: 0.01, release: 0.3 }],
        contour: ['envelope', 'Envelope', { mode: 'ad', attack: 0.005, decay: 0.25, peakVolts: 5 }],
        which: ['crossfade', 'School', { position: 0 }],
        depth: ['offset', 'Inverted depth', { amount: -0.8, volts: 5 }],
        band: tone(165, 'Band'),
        amp: ['vca', 'Amp'],
        out: out(),
      },
      cables: [
        'beat.out > shape.gate',
        'beat.out > contour.gate',
        'thump.sine > hit.in',
        'shape.out > hit.cv',
        'hit.out > listens.in',
        'hit.out > out.right',
        'listens.out > which.in',
        'contour.out > which.in2',
        'which.out > depth.in',
        'depth.out > amp.cv',
        'band.saw > amp.in',
        'amp.out > out.left',
      ],
      settings: { duration: 3 },
    },
    [
      step('A thump on every beat, and a band that has to make room for it.', {
        at: 'amp.cv',
        pins: ['hit.out', 'amp.out'],
        look: ['hit.out', 'high'],
      }),
      step('The first school listens. A follower rectifies the thump and smooths it into a voltage.', {
        pins: ['hit.out', 'listens.out'],
        look: ['listens.out', 'high'],
      }),
      step('With too short a release it follows the wave itself, and the ripple is heard as a buzz.', {
        set: { 'listens.release': 0.02 },
        pins: ['listens.out', 'depth.out'],
        look: ['listens.out', 'rms'],
      }),
      step('Longer again: smooth, and slower to come back.', {
        set: { 'listens.release': 0.3 },
        look: ['amp.cv', 'readingLow'],
      }),
      step('A softer thump makes a shallower dip: this way, ducking follows the playing.', {
        set: { 'shape.peakVolts': 2.5 },
        look: ['amp.cv', 'readingLow'],
      }),
      step('The second school does not listen. The same clock starts an envelope, whose peak is always 5 V.', {
        set: { 'which.position': 1 },
        pins: ['contour.out', 'depth.out'],
        look: ['amp.cv', 'low'],
        ask: [
          'An envelope of 5 V, a gain of −0.8 and an offset of 5 V. How low does the control voltage get?',
          'amp.cv',
          'low',
        ],
      }),
      step('The thump is still soft, and the dip as deep as ever: clean, and the same on every beat.', {
        look: ['amp.cv', 'readingLow'],
      }),
      step('Its decay says how the band comes back.', {
        set: { 'contour.decay': 0.5 },
        look: ['amp.cv', 'mean'],
      }),
      step('Half of each: where the crossfader stands in the middle, the dip follows the playing a little.', {
        set: { 'which.position': 0.5, 'shape.peakVolts': 5, 'contour.decay': 0.25 },
        look: ['amp.cv', 'readingLow'],
      }),
    ],
  ),
  basics(
    [
      'gates-accents-hanging-notes',
      'Gates, accents and hanging notes',
      'A gate input only knows over and under. What does not reach its threshold, what reaches it on purpose, and what never lets go.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 120, width: 0.4 }],
        weights: ['sequencer', 'Weights', line(5, 1, 3, 1)],
        cut: ['vca', 'Times the gate'],
        sum: ['mixer', 'Sum', { inputs: 2, gain2: 0, maxGain: 2 }],
        contour: ['envelope', 'Envelope', { mode: 'adsr', attack: 0.01, decay: 0.1, release: 0.1, peakVolts: 5 }],
        voice: tone(196),
        amp: ['vca', 'Amp'],
        out: out(),
      },
      cables: [
        'beat.out > weights.clock',
        'beat.out > sum.in1',
        'beat.out > cut.cv',
        'weights.cv > cut.in',
        'cut.out > sum.in2',
        'sum.out > contour.gate',
        'contour.out > amp.cv',
        'voice.triangle > amp.in',
        'amp.out > out.left',
      ],
      settings: { duration: 4 },
    },
    [
      step(
        'A clock of 5 V gates an envelope. It starts when the voltage rises over a threshold, and is released when it falls below.',
        {
          at: 'amp.cv',
          pins: ['sum.out', 'contour.out'],
          look: ['sum.out', 'high'],
        },
      ),
      step('On many modules that threshold lies near 4 V. 5 V still does it.', {
        set: { 'contour.thresholdVolts': 4 },
        look: ['amp.cv', 'high'],
      }),
      step('A gate of 3 V does not. Nothing is broken, and nothing is heard.', {
        set: { 'beat.highVolts': 3 },
        look: ['amp.cv', 'high'],
      }),
      step('The cure is gain: a mixer that goes beyond unity.', {
        set: { 'sum.gain1': 2 },
        look: ['sum.out', 'high'],
        ask: ['The gate is 3 V. Sum’s first gain goes to 2: how high is what it puts out?', 'sum.out', 'high'],
      }),
      step(
        'Or use it: the gate alone stays below the threshold, and a weight that is added lifts some steps over it. Those are accents.',
        {
          set: { 'sum.gain1': 1, 'sum.gain2': 1 },
          pins: ['sum.out', 'contour.out'],
          look: ['sum.out', 'high'],
        },
      ),
      step('The second gain decides how many of the steps get over.', {
        set: { 'sum.gain2': 0.6 },
        look: ['amp.cv', 'mean'],
      }),
      step(
        'Now the steps alone, as a gate. They never return to 0 V in between, and with a low threshold the note hangs.',
        {
          set: { 'sum.gain1': 0, 'sum.gain2': 1, 'contour.thresholdVolts': 0.5, 'cut.bias': 5 },
          look: ['sum.out', 'low'],
        },
      ),
      step('Multiplied by the gate they fall to 0 V after every step, and each note ends.', {
        set: { 'cut.bias': 0 },
        look: ['sum.out', 'low'],
      }),
      step('A long release may sound like a hanging note, but it is none: the gate did fall.', {
        set: { 'contour.release': 1.5 },
        look: ['amp.cv', 'low'],
      }),
      step('A plain 5 V gate, a threshold of 1 V, a release that fits the beat.', {
        set: {
          'beat.highVolts': 5,
          'sum.gain1': 1,
          'sum.gain2': 0,
          'contour.thresholdVolts': 1,
          'contour.release': 0.1,
        },
        look: ['amp.cv', 'low'],
      }),
    ],
  ),
  basics(
    [
      'ring-and-amplitude-modulation',
      'Ring and amplitude modulation',
      'Two ways to multiply two sounds. What stays, what vanishes, and what leaks.',
    ],
    {
      stages: {
        voice: ['oscillator', 'Voice', { baseHz: 440 }],
        other: ['oscillator', 'Modulator', { baseHz: 3 }],
        ring: ['ringMod', 'Ring', { coupling: 'dc' }],
        amp: ['vca', 'AM', { cvAmount: 0.5, bias: 2.5 }],
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
      settings: { duration: 1 },
    },
    [
      step(
        'A slow sine moves a VCA between closed and fully open: amplitude modulation, and at this speed a tremolo.',
        {
          at: 'amp.cv',
          pins: ['other.sine', 'amp.out'],
          look: ['amp.cv', 'readingHigh'],
        },
      ),
      step(
        'A ring modulator multiplies by the same sine as it is, below 0 V too: it swells twice in each cycle, once upside down.',
        {
          at: 'ring.b',
          pins: ['other.sine', 'ring.out'],
          look: ['ring.out', 'rms'],
        },
      ),
      step('Faster, the movement becomes sound. The ring modulator gives 330 and 550 Hz, and nothing at 440 Hz.', {
        set: { 'other.baseHz': 110 },
        pins: ['ring.out'],
        look: ['ring.out', 'rms'],
      }),
      step('The VCA gives both of those as well, at half the height, and keeps the 440 Hz.', {
        at: 'amp.cv',
        pins: ['amp.out'],
        look: ['amp.out', 'rms'],
      }),
      step('A real ring modulator bleeds: a little of each input comes straight through.', {
        set: { 'ring.bleedA': 0.08 },
        at: 'ring.b',
        pins: ['ring.out'],
        look: ['ring.out', 'rms'],
      }),
      step('Its trimmer adds the opposite. Null it by ear, with the other input silent.', {
        set: { 'ring.trimA': -0.08 },
        look: ['ring.out', 'rms'],
      }),
      step(
        'AC coupling takes the constant part out of both inputs. With a slow modulator it takes much of the movement, too.',
        {
          set: { 'other.baseHz': 1, 'ring.coupling': 'ac' },
          pins: ['other.sine', 'ring.out'],
          look: ['ring.out', 'rms'],
        },
      ),
      step('DC coupled, all of it is back. That is the setting for control voltages.', {
        set: { 'ring.coupling': 'dc' },
        look: ['ring.out', 'rms'],
      }),
      step('A VCA without bias only lets half of the modulator through: two quadrants are no ring modulator.', {
        set: { 'amp.bias': 0, 'amp.cvAmount': 1 },
        at: 'amp.cv',
        pins: ['other.sine', 'amp.out'],
        look: ['amp.cv', 'closedPercent'],
      }),
      step('With four quadrants it is one: the same voltage at every moment as the ring modulator’s.', {
        set: { 'amp.quadrants': 4 },
        pins: ['ring.out', 'amp.out'],
        look: ['amp.out', 'rms'],
      }),
    ],
  ),
];
