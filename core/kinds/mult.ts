import type { Affine } from '../law/affine';
import { kind, never, signal } from './kind';
import { choice } from './params';

export const mult = kind({
  name: 'mult',
  title: 'Mult',
  does: 'copies one signal to several outputs',
  aliases: ['multiple', 'splitter'],
  words: { params: { build: 'Type' }, options: { build: { buffered: 'Buffered', passive: 'Passive' } } },
  formula: 'out1..out4 = in; passive: wire, so that its source bears all loads',
  category: 'between',
  electrical: {
    unracked: 'always',
    passive: (p) => (p.build === 'passive' ? { is: 'wire' } : null),
    powered: { says: 'Buffer the mult', param: 'build', value: 'buffered' },
  },
  params: { build: choice(['buffered', 'passive']) },
  brief: (p) => p.build,
  inputs: () => [signal('in')],
  outputs: () => ['out1', 'out2', 'out3', 'out4'],
  memory: never,
  law(_b, _p, io): Record<string, Affine> {
    const x = io.in('in');
    return { out1: x, out2: x, out3: x, out4: x };
  },
});
