import { control, kind, never } from './kind';
import { choice, number, text, setUp } from './params';
import { showNumber } from '../units/show';

export const parameter = kind({
  name: 'parameter',
  title: 'Custom destination',
  does: 'any knob with a CV input',
  aliases: ['generic'],
  words: {
    params: {
      knob: 'Knob position',
      cvAmount: 'CV amount',
      fullVolts: 'Full-scale CV',
      low: 'Value at minimum',
      high: 'Value at maximum',
      unit: 'Unit',
      taper: 'Taper',
    },
    options: { taper: { linear: 'Linear', logarithmic: 'Logarithmic' } },
  },
  formula: 'p = clamp(knob + cvAmount·(cv + cv2)/fullVolts, 0, 1); value = low + p·(high − low), or low·(high/low)^p',
  category: 'end',
  electrical: {
    unracked: 'always',
  },
  offered: 7,
  params: {
    knob: number(0.5, 0, 1),
    cvAmount: number(1, -1, 1),
    fullVolts: setUp(number(5, 0.5, 12, 'V')),
    low: setUp(number(0, -1e9, 1e9)),
    high: setUp(number(1, -1e9, 1e9)),
    unit: setUp(text('', 80)),
    taper: setUp(choice(['linear', 'logarithmic'])),
  },
  panel: {
    below: [['low', 'high']],
    check: (p) =>
      p.taper === 'logarithmic' && p.low <= 0
        ? { param: 'low', message: 'must be above 0 with a logarithmic taper' }
        : null,
  },
  brief: (p) => `knob at ${showNumber(100 * p.knob, 0)}%`,
  inputs: () => [control('cv', 0, 'cvAmount'), control('cv2', 0, 'cvAmount')],
  outputs: () => [],
  memory: never,
  law: () => ({}),
  ends: [
    {
      socket: 'cv',
      sockets: ['cv', 'cv2'],
      quantity: 'value',
      unit: (p) => p.unit,
      always: true,
      says: 'knob and CVs add up',
      drive: (b, p, io) =>
        b.sum([io.in('cv'), p.cvAmount], [io.in('cv2'), p.cvAmount], [b.constant(p.knob * p.fullVolts), 1]),
      value(p, v) {
        const x = Math.min(1, Math.max(0, v / p.fullVolts));
        return p.taper === 'linear' ? p.low + x * (p.high - p.low) : p.low * (p.high / p.low) ** x;
      },
      window: (p) => [0, p.fullVolts],
      ownKnob: { param: 'knob', amount: 'cvAmount', fullVolts: (p) => p.fullVolts },
      pins: true,
    },
  ],
});
