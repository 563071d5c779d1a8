import { kind, never, signal } from './kind';
import { between, choice, number, reach, within, volts, setUp } from './params';
import { showNumber, showVolts } from '../units/show';

export const offset = kind({
  name: 'offset',
  title: 'Scale and offset',
  does: 'scales, inverts and adds an offset',
  aliases: ['attenuverter', 'bias', 'shift'],
  words: {
    params: {
      amount: 'Gain',
      maxAmount: 'Gain range (±)',
      volts: 'Offset',
      lowVolts: 'Offset minimum',
      highVolts: 'Offset maximum',
      order: 'Order',
    },
    options: { order: { scaleThenShift: 'Gain, then offset', shiftThenScale: 'Offset, then gain' } },
  },
  formula: 'out = amount·in + volts, or amount·(in + volts)',
  category: 'between',
  params: {
    amount: number(1, -4, 4, '', within('maxAmount')),
    maxAmount: reach(setUp(choice([1, 2, 4]))),
    volts: volts(0, between('lowVolts', 'highVolts')),
    lowVolts: reach(volts(-5)),
    highVolts: reach(volts(5)),
    order: setUp(choice(['scaleThenShift', 'shiftThenScale'])),
  },
  panel: {
    below: [['lowVolts', 'highVolts']],
    scaledBy: (p) => (p.order === 'scaleThenShift' ? ['amount', 'volts'] : ['amount']),
    mirrored(p, sum) {
      const lift = sum - p.volts;
      const reached = p.order === 'scaleThenShift' && lift >= p.lowVolts && lift <= p.highVolts;
      return reached ? { amount: -p.amount || 0, volts: lift } : null;
    },
    linear: () => ['amount', 'volts'],
  },
  stage: {
    lift: { param: 'volts', perVolt: (p) => (p.order === 'shiftThenScale' ? p.amount : 1) },
  },
  brief: (p) => `gain ×${showNumber(p.amount, 2)}, offset ${showVolts(p.volts)}`,
  inputs: () => [signal('in', 0, 'amount')],
  outputs: () => ['out'],
  memory: never,
  law(b, p, io) {
    const shift = p.order === 'scaleThenShift' ? p.volts : p.amount * p.volts;
    return { out: b.scale(io.in('in'), p.amount, shift) };
  },
});
