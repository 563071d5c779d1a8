import { kind, never, signal } from './kind';
import { choice, flag, number, ohms, volts, setUp } from './params';
import { potGain } from './pot';
import { showNumber } from '../units/show';

export const attenuator = kind({
  name: 'attenuator',
  title: 'Attenuator',
  does: 'reduces level',
  aliases: ['pot', 'level', 'reversed pot'],
  words: {
    params: {
      amount: 'Gain',
      normalVolts: 'Normalled voltage',
      build: 'Circuit',
      potOhms: 'Pot resistance',
      reversed: 'Wired in reverse',
    },
    says: {
      normalVolts: 'what the input gets when unpatched',
      reversed: 'passive only: source at the wiper, output at the top',
    },
    options: { build: { active: 'Buffered', passive: 'Passive' } },
  },
  formula:
    'out = amount·in; passive: a pot of R = potOhms, which loads its source and is loaded; reversed: the source sees kR ∥ ((1 − k)R + L), and out = in·L/((1 − k)R + L) into a load L',
  category: 'between',
  electrical: {
    passive: (p) =>
      p.build === 'passive' ? { is: 'pot', ohms: p.potOhms, position: p.amount, reversed: p.reversed } : null,
    powered: { says: 'Use a buffered attenuator', param: 'build', value: 'active' },
  },
  params: {
    amount: number(1, 0, 1),
    normalVolts: setUp(volts(0)),
    build: setUp(choice(['active', 'passive'])),
    potOhms: setUp(ohms(100_000, 1000, 1_000_000)),
    reversed: setUp(flag(false)),
  },
  brief: (p) => `gain ×${showNumber(p.amount, 2)}${p.build === 'passive' ? ', passive' : ''}`,
  inputs: (p) => [signal('in', p.normalVolts, 'amount')],
  outputs: () => ['out'],
  panel: {
    linear: (p) => (p.build === 'passive' ? [] : ['amount']),
  },
  memory: never,
  law(b, p, io) {
    if (p.build === 'active') return { out: b.scale(io.in('in'), p.amount) };
    const { potLoad, spread } = io.loading;
    const gain = (load: number | null): number =>
      potGain({ ohms: p.potOhms, position: p.amount, reversed: p.reversed }, load);
    if (!spread?.potLoads) return { out: b.scale(io.in('in'), gain(potLoad)) };
    const [low, high] = spread.potLoads.map(gain) as [number, number];
    return { out: b.mul(io.in('in'), io.symbol('loaded gain', low, high)) };
  },
});
