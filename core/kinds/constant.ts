import { kind, never } from './kind';
import { between, reach, volts } from './params';
import { showVolts } from '../units/show';

export const constant = kind({
  name: 'constant',
  title: 'Manual voltage',
  does: 'a fader, wheel or pedal at a fixed setting',
  aliases: ['offset', 'DC', 'voltage source'],
  words: { params: { volts: 'Voltage', lowVolts: 'Knob minimum', highVolts: 'Knob maximum' } },
  formula: 'out = volts',
  category: 'source',
  source: {
    notes: (_output, name) => /pitch|note|tune/i.test(name),
    period: () => 'none',
  },
  panel: {
    fader: { param: 'volts', travel: (p) => [p.lowVolts, p.highVolts] },
    below: [['lowVolts', 'highVolts']],
    linear: () => ['volts'],
  },
  params: { volts: volts(0, between('lowVolts', 'highVolts')), lowVolts: reach(volts(-5)), highVolts: reach(volts(5)) },
  brief: (p) => showVolts(p.volts),
  inputs: () => [],
  outputs: () => ['out'],
  memory: never,
  law: (b, p) => ({ out: b.constant(p.volts) }),
});
