import { kind, never, signal } from './kind';

export const inverter = kind({
  name: 'inverter',
  title: 'Inverter',
  does: 'inverts polarity',
  words: { params: {} },
  formula: 'out = −in',
  category: 'between',
  stage: {
    flips: () => true,
  },
  params: {},
  brief: () => 'inverts',
  inputs: () => [signal('in')],
  outputs: () => ['out'],
  memory: never,
  law: (b, _p, io) => ({ out: b.scale(io.in('in'), -1) }),
});
