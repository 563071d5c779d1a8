import type { Laws } from '../law/builder';
import { isConstant } from '../law/affine';
import type { Affine } from '../law/affine';
import { fateOf } from './detect';
import { always, control, kind, signal } from './kind';
import type { GateState, Sockets } from './kind';
import { number, volts, setUp } from './params';
import { showVolts } from '../units/show';

/** By the bound of the difference, so that what `in` and `threshold` share cancels. */
function gateState(b: Laws, p: { readonly thresholdVolts: number }, io: Sockets): GateState {
  const threshold = io.in('threshold');
  if (isConstant(threshold)) return fateOf(io.range(io.in('in')), p.thresholdVolts + threshold.c);
  return fateOf(io.range(b.sum([io.in('in'), 1], [threshold, -1])), p.thresholdVolts);
}

export const comparator = kind({
  name: 'comparator',
  title: 'Comparator',
  does: 'outputs a gate while its input is above a threshold',
  aliases: ['gate extractor'],
  words: {
    params: { thresholdVolts: 'Threshold', hysteresis: 'Hysteresis', lowVolts: 'Low level', highVolts: 'High level' },
  },
  formula:
    'high when in ≥ thresholdVolts + threshold, low again when in is more than hysteresis below that; starts low; inverted is the other level',
  category: 'between',
  params: {
    thresholdVolts: volts(2.5),
    hysteresis: setUp(number(0.1, 0, 5, 'V')),
    lowVolts: volts(0),
    highVolts: volts(5),
  },
  panel: {
    below: [['lowVolts', 'highVolts']],
  },
  brief: (p) => `high above ${showVolts(p.thresholdVolts)}`,
  inputs: () => [signal('in'), control('threshold')],
  outputs: () => ['out', 'inverted'],
  timing: {
    gates: ['out', 'inverted'],
    detects: { input: 'in', threshold: 'thresholdVolts', gateState },
  },
  source: {
    remakes: always,
  },
  memory: always,
  law(b, p, io): Record<string, Affine> {
    const known = gateState(b, p, io);
    // The levels themselves, not worked out: another comparator's threshold may lie on one, to the last bit.
    const [out, inverted] = known === 'high' ? [p.highVolts, p.lowVolts] : [p.lowVolts, p.highVolts];
    if (known !== 'moves') return { out: b.constant(out), inverted: b.constant(inverted) };
    // Tied before the rails, which each output meets by itself.
    const high = io.symbol('high', 0, 1);
    const swing = p.highVolts - p.lowVolts;
    return { out: b.scale(high, swing, p.lowVolts), inverted: b.scale(high, -swing, p.highVolts) };
  },
  kernel(p, wiring) {
    const [input, threshold] = [wiring.input('in'), wiring.input('threshold')];
    const [out, inverted] = [wiring.output('out'), wiring.output('inverted')];
    const { detected } = wiring;
    const state = wiring.keep('state', () => ({ high: false }));
    return (from, to) => {
      for (let i = from; i < to; i++) {
        const level = p.thresholdVolts + (threshold[i] as number);
        const x = input[i] as number;
        if (x >= level) state.high = true;
        else if (x < level - p.hysteresis) state.high = false;
        const { high } = state;
        detected[i] = high ? 1 : 0;
        out[i] = high ? p.highVolts : p.lowVolts;
        inverted[i] = high ? p.lowVolts : p.highVolts;
      }
    };
  },
});
