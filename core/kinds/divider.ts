import { gateStateOf, keptGate } from './detect';
import { always, gate, kind } from './kind';
import { number, volts, setUp } from './params';

export const divider = kind({
  name: 'divider',
  title: 'Clock divider',
  does: 'divides a clock',
  words: {
    params: { by: 'Divide by', lowVolts: 'Low level', highVolts: 'High level', thresholdVolts: 'Input threshold' },
  },
  formula:
    'high for the first ⌈by/2⌉ of each by input periods (by 2: a flip-flop); low before its first edge and after a rising reset until the next edge, which counts as the first',
  category: 'between',
  params: {
    by: number(2, 2, 64, '', { whole: true }),
    lowVolts: volts(0),
    highVolts: volts(5),
    thresholdVolts: setUp(volts(1)),
  },
  panel: {
    below: [['lowVolts', 'highVolts']],
  },
  brief: (p) => `÷${p.by}`,
  inputs: (p) => [gate('in', p.thresholdVolts), gate('reset', p.thresholdVolts)],
  outputs: () => ['out'],
  timing: {
    gates: ['out'],
  },
  memory: always,
  source: {
    repeatsTimes: (p, input) => (input === 'in' ? p.by : 1),
  },
  law(b, p, io) {
    const gateState = gateStateOf(io, 'in', p.thresholdVolts);
    if (gateState === 'low') return { out: b.constant(p.lowVolts) };
    // Up from the start is its first edge and its last; a reset after it would end what that began.
    const kept = gateState === 'high' && gateStateOf(io, 'reset', p.thresholdVolts) !== 'moves';
    return { out: kept ? b.constant(p.highVolts) : io.symbol('out', p.lowVolts, p.highVolts) };
  },
  kernel(p, wiring) {
    const [input, resetIn, out] = [wiring.input('in'), wiring.input('reset'), wiring.output('out')];
    const clock = keptGate(wiring, 'clock', p.thresholdVolts);
    const reset = keptGate(wiring, 'reset', p.thresholdVolts);
    const highFor = Math.ceil(p.by / 2);
    const state = wiring.keep('state', () => ({ count: -1 }));
    return (from, to) => {
      for (let i = from; i < to; i++) {
        if (reset.rises(resetIn[i] as number)) state.count = -1;
        if (clock.rises(input[i] as number)) state.count = (state.count + 1) % p.by;
        out[i] = state.count >= 0 && state.count < highFor ? p.highVolts : p.lowVolts;
      }
    };
  },
});
