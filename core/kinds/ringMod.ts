import { dbOf, orNothing } from '../units/ratios';
import { kind, signal } from './kind';
import type { EndSpec, GainSpec } from './kind';
import { choice, number, setUp } from './params';

const trim = () => setUp(number(0, -0.1, 0.1));

interface Multiplier {
  readonly scaleVolts: number;
  readonly coupling: 'ac' | 'dc';
  readonly bleedA: number;
  readonly bleedB: number;
  readonly trimA: number;
  readonly trimB: number;
}

/** What of the other input passes while one stands at 0 V. */
const throughOf = (p: Multiplier, socket: 'a' | 'b'): number =>
  socket === 'a' ? p.bleedB + p.trimB : p.bleedA + p.trimA;

/** What one input makes of a volt at the other, feedthrough included; with its sign. */
const signedBy =
  (socket: 'a' | 'b') =>
  (p: Multiplier, v: number): number =>
    v / p.scaleVolts + throughOf(p, socket);

/** The same as a gain. */
function gainEnd(socket: 'a' | 'b'): EndSpec<Multiplier> {
  const signed = signedBy(socket);
  return {
    socket,
    sockets: [socket],
    quantity: 'gain',
    unit: () => 'dB',
    always: false,
    says: 'gain of the other input, inverted below 0 V',
    drive: (b, p, io) => (p.coupling === 'ac' ? b.couple(io.in(socket)) : io.in(socket)),
    value: (p, v) => dbOf(orNothing(signed(p, v))),
    signed,
    window: () => null,
    span(p, lo, hi) {
      const silent = -throughOf(p, socket) * p.scaleVolts;
      const most = Math.abs(lo - silent) > Math.abs(hi - silent) ? lo : hi;
      return [Math.min(hi, Math.max(lo, silent)), most];
    },
  };
}

/** The same with its sign. */
const factorEnd = (socket: 'a' | 'b'): EndSpec<Multiplier> => ({
  socket,
  sockets: [socket],
  quantity: 'factor',
  further: true,
  unit: () => '×',
  always: false,
  says: 'what becomes of the other input, feedthrough included',
  drive: (b, p, io) => (p.coupling === 'ac' ? b.couple(io.in(socket)) : io.in(socket)),
  value: signedBy(socket),
  window: () => null,
});

const multipliedBy = (signalName: string, socket: 'a' | 'b'): GainSpec<Multiplier> => ({
  signals: [signalName],
  controls: [socket],
  balances: (p) => p.coupling === 'dc',
  gain:
    (p) =>
    ([v = 0]) =>
      signedBy(socket)(p, v),
});

export const ringMod = kind({
  name: 'ringMod',
  title: 'Ring modulator',
  does: 'four-quadrant multiplier',
  aliases: ['multiplier'],
  words: {
    params: {
      scaleVolts: 'Scaling voltage',
      coupling: 'Input coupling',
      bleedA: 'A feedthrough',
      bleedB: 'B feedthrough',
      trimA: 'A trim',
      trimB: 'B trim',
    },
    says: { scaleVolts: 'output = A × B ÷ this' },
    options: { coupling: { ac: 'AC', dc: 'DC' } },
  },
  formula: 'out = a·b/scaleVolts + (bleedA + trimA)·a + (bleedB + trimB)·b; ac: both inputs coupled at 2 Hz',
  category: 'between',
  sound: {
    feedthrough: (p, peak) => [
      { input: 'a', trim: 'trimA', bleed: p.bleedA + p.trimA, product: peak('b') / p.scaleVolts },
      { input: 'b', trim: 'trimB', bleed: p.bleedB + p.trimB, product: peak('a') / p.scaleVolts },
    ],
    acCoupled: (p) => (p.coupling === 'ac' ? ['a', 'b'] : []),
  },
  params: {
    scaleVolts: setUp(number(5, 0.5, 24, 'V')),
    coupling: setUp(choice(['ac', 'dc'])),
    bleedA: trim(),
    bleedB: trim(),
    trimA: trim(),
    trimB: trim(),
  },
  brief: (p) => `4-quadrant, ${p.coupling.toUpperCase()} coupled`,
  inputs: () => [signal('a'), signal('b')],
  outputs: () => ['out'],
  panel: {
    linear: () => ['bleedA', 'bleedB', 'trimA', 'trimB'],
  },
  memory: (p) => p.coupling === 'ac',
  law(b, p, io) {
    const [x, y] = ['a', 'b'].map((name) => (p.coupling === 'ac' ? b.couple(io.in(name)) : io.in(name))) as [
      ReturnType<typeof io.in>,
      ReturnType<typeof io.in>,
    ];
    return { out: b.sum([b.mul(x, y), 1 / p.scaleVolts], [x, p.bleedA + p.trimA], [y, p.bleedB + p.trimB]) };
  },
  stage: {
    gains: [multipliedBy('b', 'a'), multipliedBy('a', 'b')],
  },
  ends: [gainEnd('a'), gainEnd('b'), factorEnd('a'), factorEnd('b')],
});
