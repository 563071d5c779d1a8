import type { Laws } from '../law/builder';
import type { Affine } from '../law/affine';
import { dbOf, orNothing } from '../units/ratios';
import { control, kind, never, signal } from './kind';
import type { Sockets } from './kind';
import { number, setUp } from './params';
import { responseCurve } from './response';
import { showNumber } from '../units/show';

interface Gain {
  readonly gain: number;
  readonly modulation: number;
  readonly curve: number;
  readonly unityVolts: number;
}

/** What becomes of a volt at `in` while `cv` stands at a voltage and nothing clips. */
function gainAt(p: Gain, cv: number): number {
  const share = cv / p.unityVolts;
  const x = p.curve === 0 ? share : responseCurve(p.curve, 4, Infinity).f(share);
  return p.gain * (1 - p.modulation + p.modulation * x);
}

/** Which way its factor goes with its control. */
const wayOf = (p: Gain): 1 | -1 => (p.gain < 0 ? -1 : 1);

/** The control at which nothing passes, found between two where the gain changes its sign (bisection). */
function silentAt(p: Gain, lo: number, hi: number): number {
  let [a, b] = [lo, hi];
  const rising = gainAt(p, b) > gainAt(p, a);
  for (let i = 0; i < 80; i++) {
    const middle = (a + b) / 2;
    if (gainAt(p, middle) > 0 === rising) b = middle;
    else a = middle;
  }
  return (a + b) / 2;
}

type Bent = Gain & { readonly biasAmount: number; readonly clipVolts: number };

/** Scaled and biased, before it is clipped. */
const scaled = (b: Laws, p: Bent, io: Sockets): Affine => b.sum([io.in('in'), p.gain], [io.in('bias'), p.biasAmount]);

/** Modulated and chained, before it is clipped again. */
function modulated(b: Laws, p: Bent, io: Sockets): Affine {
  const m = b.clamp(scaled(b, p, io), -p.clipVolts, p.clipVolts);
  const share = b.scale(io.in('cv'), 1 / p.unityVolts);
  const x = p.curve === 0 ? share : b.curve(share, responseCurve(p.curve, 4, Infinity));
  return b.sum([m, 1 - p.modulation], [b.mul(m, x), p.modulation], [io.in('chain'), 1]);
}

export const polarizer = kind({
  name: 'polarizer',
  title: 'Polarizer',
  does: 'voltage-controlled attenuverter',
  aliases: ['VC polarizer', 'balanced modulator'],
  words: {
    params: {
      gain: 'Gain',
      biasAmount: 'Offset',
      modulation: 'Modulation depth',
      curve: 'CV response',
      unityVolts: 'Unity CV',
      clipVolts: 'Clip level',
    },
    sockets: { bias: 'Offset CV' },
  },
  formula:
    'm = clip(gain·in + biasAmount·bias); x = g(cv/unityVolts), odd; out = clip((1 − modulation)·m + modulation·m·x + chain), clip at ±clipVolts; bias is normalled to +5 V',
  category: 'between',
  params: {
    gain: number(1, -4, 4),
    biasAmount: number(0, -1, 1),
    modulation: number(0, 0, 1),
    curve: number(0, 0, 1),
    unityVolts: setUp(number(5, 0.5, 12, 'V')),
    clipVolts: setUp(number(10, 0.1, 24, 'V')),
  },
  brief: (p) => `4-quadrant, gain ${showNumber(p.gain, 2)}`,
  inputs: () => [signal('in', 0, 'gain'), control('bias', 5, 'biasAmount'), control('cv'), signal('chain')],
  outputs: () => ['out'],
  panel: {
    scaledBy: () => ['gain', 'biasAmount'],
  },
  memory: never,
  stage: {
    gains: [
      {
        signals: ['in'],
        controls: ['cv'],
        balances: (p) => p.modulation === 1,
        gain:
          (p) =>
          ([cv = 0]) =>
            gainAt(p, cv),
      },
    ],
    clipLevel: (p) => p.clipVolts,
    clips: (b, p, io) => [
      { value: scaled(b, p, io), level: p.clipVolts },
      { value: modulated(b, p, io), level: p.clipVolts },
    ],
  },
  law: (b, p, io) => ({ out: b.clamp(modulated(b, p, io), -p.clipVolts, p.clipVolts) }),
  ends: [
    {
      socket: 'cv',
      sockets: ['cv'],
      quantity: 'gain',
      unit: () => 'dB',
      always: false,
      says: 'how much of its input passes, inverted below zero',
      drive: (_b, _p, io) => io.in('cv'),
      value: (p, v) => dbOf(orNothing(gainAt(p, v))),
      signed: gainAt,
      window: () => null,
      span(p, lo, hi) {
        const [a, b] = [gainAt(p, lo), gainAt(p, hi)];
        const most = Math.abs(a) > Math.abs(b) ? lo : hi;
        if (a * b < 0) return [silentAt(p, lo, hi), most];
        return [most === lo ? hi : lo, most];
      },
    },
    {
      socket: 'cv',
      sockets: ['cv'],
      quantity: 'factor',
      further: true,
      unit: () => '×',
      always: false,
      says: 'what becomes of its input, inverted below zero; its gain included',
      drive: (b, p, io) => b.scale(io.in('cv'), wayOf(p)),
      value: (p, v) => gainAt(p, wayOf(p) * v),
      window: () => null,
    },
  ],
});
