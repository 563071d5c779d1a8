import { ofRecipe, step } from './build';
import type { BuiltWalkthrough } from './build';

export const space: readonly BuiltWalkthrough[] = [
  ofRecipe('stereo', [
    step('A panner sends one sound to two outputs. A voltage moves it from 0%, left, to 100%, right.', {
      at: 'pan.cv',
      look: ['pan.cv', 'readingLow'],
    }),
    step('The LFO is bipolar and the knob stands in the middle: together they cover the whole width.', {
      look: ['pan.cv', 'readingHigh'],
    }),
    step('Half the CV amount keeps it within the middle half.', {
      set: { 'pan.cvAmount': 0.5 },
      look: ['pan.cv', 'readingHigh'],
      ask: [
        '10 V span the whole width. With CV amount at 0.5, how far to the right does ±5 V get?',
        'pan.cv',
        'readingHigh',
      ],
    }),
    step('The knob shifts the centre: the sound now wanders between left and middle.', {
      set: { 'pan.position': 0.25 },
      look: ['pan.cv', 'readingHigh'],
    }),
    step('A linear law loses level in the middle: each side is at half.', {
      set: { 'pan.law': 'linear', 'pan.position': 0.5, 'pan.cvAmount': 1 },
      pins: ['pan.a', 'pan.b'],
      look: ['pan.a', 'rms'],
    }),
    step('Equal power keeps it even, at 71% on each side. And slower, as a sound that drifts.', {
      set: { 'pan.law': 'equalPower', 'slow.rateHz': 0.25 },
      pins: ['pan.a', 'pan.b'],
      look: ['pan.a', 'rms'],
    }),
  ]),
  ofRecipe('quarter', [
    step('One LFO with two outputs, a quarter of a cycle apart.', {
      at: 'left.cv',
      pins: ['slow.out', 'slow.quadrature'],
      look: ['left.cv', 'readingHigh'],
    }),
    step('Each moves a VCA of its own: one side swells, the other a quarter of a cycle away from it.', {
      at: 'right.cv',
      pins: ['left.out', 'right.out'],
      look: ['right.cv', 'readingHigh'],
    }),
    step('Twice as fast, and still a quarter apart: both come from the same phase.', {
      set: { 'slow.rateHz': 1 },
      pins: ['slow.out', 'slow.quadrature'],
      look: ['right.cv', 'closedPercent'],
    }),
    step('Two LFOs that run free would drift apart. Only a reset from one to the other holds a phase.', {
      look: ['left.cv', 'readingHigh'],
    }),
    step('More CV amount than the bias can carry: both sides close for part of each cycle.', {
      set: { 'left.cvAmount': 0.8, 'right.cvAmount': 0.8 },
      at: 'left.cv',
      look: ['left.cv', 'closedPercent'],
    }),
    step('A little less than half: deep, and never closed.', {
      set: { 'left.cvAmount': 0.45, 'right.cvAmount': 0.45, 'slow.rateHz': 0.5 },
      look: ['left.cv', 'closedPercent'],
    }),
  ]),
  ofRecipe('feedback', [
    step('A short note goes into a delay, and comes back through an attenuator into the same mixer.', {
      at: 'out.left',
      pins: ['hit.out', 'join.out'],
      look: ['join.out', 'high'],
    }),
    step('Back at 0.6: every repeat is six tenths of the one before.', { look: ['join.out', 'rms'] }),
    step('At 0.85 they go on for longer.', { set: { 'back.amount': 0.85 }, look: ['join.out', 'rms'] }),
    step('At 1 nothing is lost on the way round: repeats pile up on one another. Keep a hand near the level.', {
      set: { 'back.amount': 1 },
      look: ['join.out', 'high'],
    }),
    step('Well below 1 it is an echo or two, and no more.', {
      set: { 'back.amount': 0.3 },
      look: ['join.out', 'rms'],
    }),
    step('A shorter delay turns the repeats into a flutter.', {
      set: { 'later.seconds': 0.08, 'back.amount': 0.6 },
      look: ['join.out', 'rms'],
    }),
  ]),
  ofRecipe('send-return', [
    step('The dry note goes two ways: straight to the mixer, and through Send amp to the echo.', {
      at: 'send.cv',
      pins: ['hit.out', 'send.out'],
      look: ['send.cv', 'readingHigh'],
    }),
    step('Send amp is a VCA, and Send its control voltage: how much goes to the echo.', { look: ['send.out', 'high'] }),
    step('Half of the voltage is half as much.', {
      set: { 'hand.volts': 2.5 },
      look: ['send.cv', 'readingHigh'],
      ask: ['Send amp is fully open at 5 V, and linear. With Send at 2.5 V, how many dB?', 'send.cv', 'readingHigh'],
    }),
    step(
      'At 0 V nothing more goes in. What is in the echo already would ring out: that is why one closes the send, not the return.',
      {
        set: { 'hand.volts': 0 },
        pins: ['echo.out', 'back.out'],
        look: ['send.out', 'high'],
      },
    ),
    step('Fully up, and a return at unity: the echo comes back as loud as it went in.', {
      set: { 'hand.volts': 5, 'back.gain2': 1 },
      pins: ['echo.out', 'back.out'],
      look: ['back.out', 'rms'],
    }),
    step('Feedback inside the echo: more repeats of every note that was sent.', {
      set: { 'echo.feedbackAmount': 0.7 },
      look: ['back.out', 'rms'],
    }),
  ]),
];
