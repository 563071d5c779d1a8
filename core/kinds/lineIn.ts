import { gainOf } from '../units/ratios';
import { showNumber } from '../units/show';
import { kind, never, signal } from './kind';
import { number } from './params';

export const lineIn = kind({
  name: 'lineIn',
  title: 'Line input',
  does: 'amplifies line level to modular level',
  words: { params: { gainDb: 'Gain' } },
  formula: 'out = in·10^(gainDb/20)',
  category: 'between',
  sound: {
    inlet: true,
    audioRate: true,
    audible: true,
  },
  params: { gainDb: number(20, 0, 40, 'dB') },
  brief: (p) => `+${showNumber(p.gainDb, 0)} dB`,
  inputs: () => [signal('in')],
  outputs: () => ['out'],
  memory: never,
  law: (b, p, io) => ({ out: b.scale(io.in('in'), gainOf(p.gainDb)) }),
});
