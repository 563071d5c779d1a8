import { out, tone } from '../../recipes/types';
import { basics, step } from './build';
import type { BuiltWalkthrough } from './build';

/** Ranges: scaling and lifting, and where they end. */
export const scaling: readonly BuiltWalkthrough[] = [
  basics(
    [
      'gain-and-offset',
      'Gain and offset, in both orders',
      'An attenuverter changes the span, an offset the place. Which of them comes first decides what the second one takes along.',
    ],
    {
      stages: {
        slow: ['lfo', 'Slow', { rateHz: 0.5 }],
        trim: ['attenuverter', 'Trim', { amount: 1 }],
        lift: ['offset', 'Lift', { amount: 1 }],
        voice: tone(110),
        soft: ['filter', 'Soft', { cutoffHz: 500 }],
        out: out(),
      },
      cables: [
        'slow.out > trim.in',
        'trim.out > lift.in',
        'lift.out > soft.cutoff',
        'voice.saw > soft.in',
        'soft.lowpass > out.left',
      ],
      settings: { duration: 4 },
    },
    [
      step(
        'An LFO of ±5 V goes straight to a filter’s cutoff. That is ten octaves: far too much, and the lowest are out of the filter’s reach.',
        {
          at: 'soft.cutoff',
          look: ['soft.cutoff', 'readingLow'],
        },
      ),
      step('Gain first. Trim takes a share of both ends, so the span shrinks around 0 V.', {
        set: { 'trim.amount': 0.4 },
        look: ['soft.cutoff', 'low'],
        ask: ['Trim goes to 0.4. What is the lowest voltage that arrives?', 'soft.cutoff', 'low'],
      }),
      step('Now the offset. Both ends move up by the same two volts, and the span stays as it was.', {
        set: { 'lift.volts': 2 },
        look: ['soft.cutoff', 'high'],
      }),
      step(
        'Trim stands before the offset, so it does not touch those two volts: half the swing, around the same middle.',
        {
          set: { 'trim.amount': 0.2 },
          look: ['soft.cutoff', 'low'],
          ask: [
            'Trim goes from 0.4 to 0.2, the offset stays at 2 V. What is the lowest voltage now?',
            'soft.cutoff',
            'low',
          ],
        },
      ),
      step(
        'Lift has a gain too, here of one half, and it scales before it shifts. The result is the same as with Trim.',
        {
          set: { 'trim.amount': 0.4, 'lift.amount': 0.5 },
          look: ['soft.cutoff', 'low'],
        },
      ),
      step('The other order: shift first, then scale. Now the gain takes its share of the offset as well.', {
        set: { 'lift.order': 'shiftThenScale' },
        look: ['soft.cutoff', 'high'],
        ask: ['±2 V, first 2 V up, then × 0.5. How high does it get?', 'soft.cutoff', 'high'],
      }),
      step('A negative gain in that order turns the offset over too: everything lies below 0 V.', {
        set: { 'lift.amount': -0.5 },
        look: ['soft.cutoff', 'high'],
      }),
      step('Scale first again. The swing is still upside down, but the offset is what the knob says.', {
        set: { 'lift.order': 'scaleThenShift' },
        pins: ['slow.out', 'lift.out'],
        look: ['soft.cutoff', 'mean'],
      }),
      step(
        'So set the span first and the place last, with the offset behind the gain: then each knob does one thing.',
        {
          set: { 'lift.amount': 1, 'trim.amount': 0.4 },
          look: ['soft.cutoff', 'readingHigh'],
        },
      ),
    ],
  ),
  basics(
    [
      'octaves-through-attenuators',
      'Octaves through an attenuator',
      'One volt is one octave, and nothing less than one. Why pitch does not like attenuators, mixers and passive pots.',
    ],
    {
      stages: {
        beat: ['clock', 'Beat', { bpm: 120 }],
        notes: ['sequencer', 'Octaves', { steps: [0, 1, 2, 1].map((volts) => ({ volts, gate: true, tie: false })) }],
        trim: ['attenuator', 'Trim', { amount: 1 }],
        lift: ['offset', 'Lift', { amount: 1 }],
        voice: tone(110),
        out: out(),
      },
      cables: [
        'beat.out > notes.clock',
        'notes.cv > trim.in',
        'trim.out > lift.in',
        'lift.out > voice.pitch',
        'voice.triangle > out.left',
      ],
      settings: { duration: 4 },
    },
    [
      step(
        'A line in octaves: 0, 1 and 2 V, from 110 Hz up. With everything at unity each volt doubles the frequency.',
        {
          at: 'voice.pitch',
          look: ['voice.pitch', 'readingHigh'],
        },
      ),
      step(
        'Trim at 0.97. As a level that would be a quarter of a dB; as a pitch it is three quarters of a semitone at the top.',
        {
          set: { 'trim.amount': 0.97 },
          look: ['voice.pitch', 'readingHigh'],
          ask: ['Trim goes to 0.97. How high is the highest note, in Hz?', 'voice.pitch', 'readingHigh'],
        },
      ),
      step('The lowest note is still in tune: the error grows with the distance from 0 V. That is how one hears it.', {
        look: ['voice.pitch', 'readingLow'],
      }),
      step('One percent off is better, and still 24 cents flat two octaves up.', {
        set: { 'trim.amount': 0.99 },
        look: ['voice.pitch', 'readingHigh'],
      }),
      step('An offset is harmless: it moves all notes by the same interval. One volt is an octave.', {
        set: { 'trim.amount': 1, 'lift.volts': 1 },
        look: ['voice.pitch', 'readingLow'],
      }),
      step('A twelfth of a volt is a semitone.', {
        set: { 'lift.volts': 0.083333 },
        look: ['voice.pitch', 'readingLow'],
      }),
      step('A mixer or an offset stage a little below unity does what the attenuator did.', {
        set: { 'lift.volts': 0, 'lift.amount': 0.98 },
        look: ['voice.pitch', 'readingHigh'],
      }),
      step('A passive pot is worse. The next input loads it, so even its scale is not what the knob says.', {
        set: { 'lift.amount': 1, 'trim.build': 'passive', 'trim.amount': 0.9 },
        look: ['voice.pitch', 'high'],
      }),
      step('The cure: send pitch straight, or through stages made to be exact at unity; transpose by offset.', {
        set: { 'trim.build': 'active', 'trim.amount': 1 },
        look: ['voice.pitch', 'readingHigh'],
      }),
    ],
  ),
  basics(
    [
      'loading',
      'Loading and passive mults',
      'A voltage is only what its source says while little is drawn from it. What passive mults and pots do to it.',
    ],
    {
      stages: {
        tide: ['constant', 'Tide', { volts: 2 }, { outputOhms: { out: 1000 } }],
        share: ['mult', 'Share', { build: 'passive' }],
        one: ['oscillator', 'One', { baseHz: 110 }],
        two: ['oscillator', 'Two', { baseHz: 110 }],
        three: ['oscillator', 'Three', { baseHz: 110 }],
        slow: ['lfo', 'Slow', { rateHz: 0.5 }],
        dim: ['attenuator', 'Dim', { build: 'passive', amount: 1 }],
        soft: ['filter', 'Soft', { cutoffHz: 500 }],
        out: out(),
      },
      cables: [
        'tide.out > share.in',
        'share.out1 > one.pitch',
        'share.out2 > two.pitch',
        'share.out3 > three.pitch',
        'slow.out > dim.in',
        'dim.out > soft.cutoff',
        'one.saw > soft.in',
        'soft.lowpass > out.left',
      ],
      settings: { duration: 4 },
    },
    [
      step(
        'A source of 2 V with 1 kΩ behind its socket feeds three oscillators through a passive mult: bare wire. Each input is 100 kΩ.',
        {
          at: 'one.pitch',
          look: ['one.pitch', 'high'],
        },
      ),
      step(
        'Three inputs side by side draw three times the current, and the source sags under it. Two octaves up, all three are flat.',
        {
          look: ['one.pitch', 'readingHigh'],
        },
      ),
      step(
        'A buffered mult has one input of its own and drives the others: only 1% is lost, and every copy is the same.',
        {
          set: { 'share.build': 'buffered' },
          look: ['one.pitch', 'high'],
        },
      ),
      step('The same with an attenuator. Dim is a bare pot of 100 kΩ, fully open: nothing is lost.', {
        at: 'soft.cutoff',
        look: ['soft.cutoff', 'high'],
      }),
      step('Half way down, half would be 2.5 V. The filter’s input draws on the pot’s lower half, and less arrives.', {
        set: { 'dim.amount': 0.5 },
        look: ['soft.cutoff', 'high'],
        ask: [
          'A bare pot of 100 kΩ half way down, into an input of 100 kΩ; 5 V at its top. What arrives at the filter?',
          'soft.cutoff',
          'high',
        ],
      }),
      step(
        'A smaller pot is disturbed less: 10 kΩ comes close to what the knob says, and loads its own source ten times as much.',
        {
          set: { 'dim.potOhms': 10_000 },
          look: ['soft.cutoff', 'high'],
        },
      ),
      step('An active attenuator has a buffer behind it: half is half.', {
        set: { 'dim.build': 'active' },
        look: ['soft.cutoff', 'high'],
      }),
      step(
        'So: passive where a share need not be exact, buffered for pitch, and measure at the socket, with the cable in.',
        {
          set: { 'share.build': 'passive' },
          at: 'one.pitch',
          look: ['one.pitch', 'readingHigh'],
        },
      ),
    ],
  ),
  basics(
    [
      'one-fader-many-destinations',
      'One fader, many destinations',
      'How one hand moves a whole sound: each destination with its own span, direction and starting point, and one that switches.',
    ],
    {
      stages: {
        fader: ['constant', 'Fader', { volts: 0, lowVolts: 0 }],
        bright: ['offset', 'Brightness', { amount: 0.8 }],
        dark: ['offset', 'Warmth', { amount: 0 }],
        level: ['offset', 'Level', { amount: 0.6, volts: 2 }],
        over: ['comparator', 'From here', { thresholdVolts: 3 }],
        voice: tone(147),
        soft: ['filter', 'Soft', { cutoffHz: 200 }],
        warm: ['filter', 'Warm', { cutoffHz: 1600 }],
        amp: ['vca', 'Amp'],
        send: ['vca', 'Send'],
        echo: ['delay', 'Echo', { seconds: 0.2, mix: 1 }],
        out: out(),
      },
      cables: [
        'fader.out > bright.in',
        'fader.out > dark.in',
        'fader.out > level.in',
        'fader.out > over.in',
        'bright.out > soft.cutoff',
        'dark.out > warm.cutoff',
        'level.out > amp.cv',
        'over.out > send.cv',
        'voice.saw > soft.in',
        'soft.lowpass > amp.in',
        'amp.out > out.left',
        'amp.out > send.in',
        'send.out > echo.in',
        'echo.out > warm.in',
        'warm.lowpass > out.right',
      ],
      settings: { duration: 1 },
    },
    [
      step('One fader from 0 to 5 V goes four ways. Fader down: the first filter rests at its own cutoff.', {
        at: 'soft.cutoff',
        look: ['soft.cutoff', 'readingHigh'],
      }),
      step('Fader up. Brightness passes 0.8 of it, so the cutoff climbs four octaves.', {
        set: { 'fader.volts': 5 },
        look: ['soft.cutoff', 'readingHigh'],
        ask: ['200 Hz at rest, one octave a volt, 0.8 of 5 V. How high is the cutoff?', 'soft.cutoff', 'readingHigh'],
      }),
      step('The level has a smaller span and a start of its own: 2 V at the bottom, 5 V at the top.', {
        at: 'amp.cv',
        look: ['amp.cv', 'readingHigh'],
      }),
      step('At the bottom it is quiet, not silent.', { set: { 'fader.volts': 0 }, look: ['amp.cv', 'readingLow'] }),
      step('The second filter goes the other way: a negative gain closes it as everything else opens.', {
        set: { 'dark.amount': -0.6, 'fader.volts': 5 },
        at: 'warm.cutoff',
        look: ['warm.cutoff', 'readingLow'],
      }),
      step('A comparator switches: below its threshold the echo’s send is closed.', {
        set: { 'fader.volts': 2 },
        at: 'send.cv',
        look: ['send.cv', 'readingHigh'],
      }),
      step('Above it, the send is open at once: a point on the fader’s way from which something new begins.', {
        set: { 'fader.volts': 3.5 },
        look: ['send.cv', 'readingHigh'],
      }),
      step(
        'To let one destination start later, lift the others less, or give it a negative offset: here nothing moves below 2 V.',
        {
          set: { 'bright.volts': -1.6, 'fader.volts': 2 },
          at: 'soft.cutoff',
          look: ['soft.cutoff', 'high'],
          ask: [
            'The fader is at 2 V, Brightness’ gain 0.8, its offset −1.6 V. What arrives at the cutoff?',
            'soft.cutoff',
            'high',
          ],
        },
      ),
      step(
        'But below that point it now pulls the cutoff down: a CV input adds whatever sign arrives. A rectifier would stop it at 0 V.',
        {
          set: { 'fader.volts': 0 },
          look: ['soft.cutoff', 'readingLow'],
        },
      ),
    ],
  ),
];
