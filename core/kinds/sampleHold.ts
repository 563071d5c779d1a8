import { gateStateOf, keptGate } from './detect';
import { always, gate, kind, signal } from './kind';
import { choice, volts, setUp } from './params';

export const sampleHold = kind({
  name: 'sampleHold',
  title: 'Sample and hold',
  does: 'samples or tracks a voltage on a clock',
  aliases: ['S&H', 'track and hold'],
  words: {
    params: { mode: 'Mode', thresholdVolts: 'Clock threshold' },
    options: { mode: { sample: 'Sample and hold', track: 'Track and hold' } },
  },
  formula: 'sample: takes in at the clock’s rising edge; track: follows in while the clock is high; 0 V before',
  category: 'between',
  params: { mode: choice(['sample', 'track']), thresholdVolts: setUp(volts(1)) },
  brief: (p) => (p.mode === 'sample' ? 'sample and hold' : 'track and hold'),
  inputs: (p) => [signal('in'), gate('clock', p.thresholdVolts)],
  outputs: () => ['out'],
  timing: {
    holds: 'clock',
  },
  memory: always,
  law(b, p, io) {
    const gateState = gateStateOf(io, 'clock', p.thresholdVolts);
    if (gateState === 'low') return { out: b.constant(0) };
    if (gateState === 'high' && p.mode === 'track') return { out: io.in('in') };
    if (gateState === 'high') return { out: io.symbol('out', ...io.range(io.in('in'))) };
    const [lo, hi] = io.range(io.in('in'));
    return { out: io.symbol('out', Math.min(0, lo), Math.max(0, hi)) };
  },
  kernel(p, wiring) {
    const [input, clockIn, out] = [wiring.input('in'), wiring.input('clock'), wiring.output('out')];
    const clock = keptGate(wiring, 'clock', p.thresholdVolts);
    const track = p.mode === 'track';
    const state = wiring.keep('state', () => ({ held: 0 }));
    return (from, to) => {
      for (let i = from; i < to; i++) {
        if (clock.rises(clockIn[i] as number) || (track && clock.high)) state.held = input[i] as number;
        out[i] = state.held;
      }
    };
  },
});
