import { kind, never, signal } from './kind';
import { choice } from './params';

export const rectifier = kind({
  name: 'rectifier',
  title: 'Rectifier',
  does: 'full- or half-wave rectifies',
  aliases: ['absolute'],
  words: {
    params: { mode: 'Mode' },
    options: { mode: { full: 'Full wave', positive: 'Positive half', negative: 'Negative half' } },
  },
  formula: 'full: abs(in); positive: max(in, 0); negative: min(in, 0)',
  category: 'between',
  params: { mode: choice(['full', 'positive', 'negative']) },
  brief: (p) => (p.mode === 'full' ? 'full wave' : `${p.mode} half`),
  inputs: () => [signal('in')],
  outputs: () => ['out'],
  memory: never,
  law(b, p, io) {
    const x = io.in('in');
    if (p.mode === 'full') return { out: b.abs(x) };
    return { out: p.mode === 'positive' ? b.clamp(x, 0, Infinity) : b.clamp(x, -Infinity, 0) };
  },
});
