import { kind, signal } from './kind';
import { choice, number } from './params';

const trim = () => number(0, -0.1, 0.1);

export const ringMod = kind({
  name: 'ringMod',
  title: 'Ring modulator',
  does: 'multiplies in four quadrants',
  formula: 'out = a·b/scaleVolts + (bleedA + trimA)·a + (bleedB + trimB)·b; ac: both inputs coupled at 2 Hz',
  room: 'between',
  audio: false,
  params: {
    scaleVolts: number(5, 0.5, 24, 'V'),
    coupling: choice(['ac', 'dc']),
    bleedA: trim(),
    bleedB: trim(),
    trimA: trim(),
    trimB: trim(),
  },
  brief: (p) => `${p.coupling.toUpperCase()} coupled`,
  inputs: () => [signal('a'), signal('b')],
  outputs: () => ['out'],
  memory: (p) => p.coupling === 'ac',
  law(b, p, io) {
    const [x, y] = ['a', 'b'].map((name) => (p.coupling === 'ac' ? b.couple(io.in(name)) : io.in(name))) as [
      ReturnType<typeof io.in>,
      ReturnType<typeof io.in>,
    ];
    return { out: b.sum([b.mul(x, y), 1 / p.scaleVolts], [x, p.bleedA + p.trimA], [y, p.bleedB + p.trimB]) };
  },
});
