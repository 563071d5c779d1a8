import { kind, never, signal } from './kind';
import { choice, number, reach, setUp, within, volts } from './params';
import { showNumber } from '../units/show';

export const attenuverter = kind({
  name: 'attenuverter',
  title: 'Attenuverter',
  does: 'reduces level and inverts',
  aliases: ['scale', 'invert'],
  words: {
    params: { amount: 'Gain', maxAmount: 'Gain range (±)', normalVolts: 'Normalled voltage' },
    says: { normalVolts: 'when unpatched; the module is then a voltage source' },
  },
  formula: 'out = amount·in',
  category: 'between',
  panel: {
    starts: { amount: 1 },
    scaledBy: () => ['amount'],
    linear: () => ['amount'],
  },
  params: {
    amount: number(0, -2, 2, '', within('maxAmount')),
    maxAmount: reach(setUp(choice([1, 2]))),
    normalVolts: setUp(volts(0)),
  },
  brief: (p) => `gain ×${showNumber(p.amount, 2)}`,
  inputs: (p) => [signal('in', p.normalVolts, 'amount')],
  outputs: () => ['out'],
  memory: never,
  law: (b, p, io) => ({ out: b.scale(io.in('in'), p.amount) }),
});
