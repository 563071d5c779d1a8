import type { Lin } from '../law/lin';
import { always, control, kind, signal } from './kind';
import { number, volts } from './params';
import { showVolts } from '../units/show';

export const comparator = kind({
  name: 'comparator',
  title: 'Comparator',
  does: 'makes a gate of it',
  formula:
    'high when in ≥ thresholdVolts + threshold, low again when in is more than hysteresis below that; starts low; inverted is the other level',
  room: 'between',
  audio: false,
  params: { thresholdVolts: volts(2.5), hysteresis: number(0.1, 0, 5, 'V'), lowVolts: volts(0), highVolts: volts(5) },
  below: [['lowVolts', 'highVolts']],
  brief: (p) => `high from ${showVolts(p.thresholdVolts)}`,
  inputs: () => [signal('in'), control('threshold')],
  outputs: () => ['out', 'inverted'],
  memory: always,
  law(b, p, io): Record<string, Lin> {
    // Tied before the rails, which each output meets by itself.
    const high = io.symbol('high', 0, 1);
    const swing = p.highVolts - p.lowVolts;
    return { out: b.scale(high, swing, p.lowVolts), inverted: b.scale(high, -swing, p.highVolts) };
  },
  kernel(p, wiring) {
    const [input, threshold] = [wiring.input('in'), wiring.input('threshold')];
    const [out, inverted] = [wiring.output('out'), wiring.output('inverted')];
    let high = false;
    return (from, to) => {
      for (let i = from; i < to; i++) {
        const level = p.thresholdVolts + (threshold[i] as number);
        const x = input[i] as number;
        if (x >= level) high = true;
        else if (x < level - p.hysteresis) high = false;
        out[i] = high ? p.highVolts : p.lowVolts;
        inverted[i] = high ? p.lowVolts : p.highVolts;
      }
    };
  },
});
