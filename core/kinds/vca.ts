import type { Laws } from '../law/builder';
import type { Affine } from '../law/affine';
import { dbOf, gainOf } from '../units/ratios';
import { control, kind, signal } from './kind';
import type { Sockets } from './kind';
import { between, choice, number, orNone, reach, setUp, volts } from './params';
import { respond, responseCurve, softLimit } from './response';
import { showVolts } from '../units/show';

interface Control {
  readonly cvAmount: number;
  readonly bias: number;
}

interface Opening {
  readonly quadrants: 2 | 4;
  readonly deadVolts: number;
  readonly unityVolts: number;
}

/** The control up to which it stays closed, volts. */
const deadOf = ({ quadrants, deadVolts }: Opening): number => (quadrants === 2 ? deadVolts : 0);

/** A control as a share of what opens it fully. */
const shareOf = (p: Opening, volts: number): number => (volts - deadOf(p)) / (p.unityVolts - deadOf(p));

/** All that opens it, as one voltage. */
function controlVolts(b: Laws, p: Control, io: Sockets): Affine {
  return b.sum([io.in('cv'), p.cvAmount], [io.in('cv2'), 1], [b.constant(p.bias), 1]);
}

export const vca = kind({
  name: 'vca',
  title: 'VCA',
  does: 'sets level by a control voltage',
  aliases: ['amplifier', 'volume', 'tremolo', 'ducking', 'sidechain'],
  words: {
    params: {
      cvAmount: 'CV amount',
      bias: 'Bias (initial level)',
      biasLowVolts: 'Bias minimum',
      biasHighVolts: 'Bias maximum',
      unityVolts: 'Unity CV',
      deadVolts: 'Dead zone',
      response: 'Response (lin to exp)',
      quadrants: 'Quadrants',
      maxGain: 'Maximum gain',
      boostDb: 'Output boost',
      coupling: 'Input coupling',
      bleed: 'CV feedthrough',
      bleedTrim: 'Feedthrough trim',
      limitVolts: 'Output limit',
    },
    says: {
      bias: 'added to the CV',
      unityVolts: 'CV for unity gain',
      deadVolts: 'CV up to which it stays closed; 2-quadrant only',
    },
    options: { quadrants: { 2: '2-quadrant', 4: '4-quadrant' }, coupling: { dc: 'DC', ac: 'AC' } },
  },
  formula:
    'c = cvAmount·cv + cv2 + bias; x = c/unityVolts, two quadrants: max(0, c − deadVolts)/(unityVolts − deadVolts); out = B·g(x)·(in + in2) + (bleed + bleedTrim)·c + chain; B = 10^(boostDb/20)',
  category: 'between',
  sound: {
    noiseMicrovolts: 80,
    feedthrough: (p, peak) => [
      {
        input: 'cv',
        trim: 'bleedTrim',
        bleed: p.bleed + p.bleedTrim,
        product: Math.max(peak('in'), peak('in2')) / (p.unityVolts - deadOf(p)),
      },
    ],
    acCoupled: (p) => (p.coupling === 'ac' ? ['in', 'in2'] : []),
  },
  stage: {
    amplifier: {
      signals: ['in', 'in2'],
      control: 'cv',
      beside: 'cv2',
      amount: 'cvAmount',
      bias: 'bias',
      response: 'response',
      settings: (p) => ({
        amount: p.cvAmount,
        bias: p.bias,
        biasRange: [p.biasLowVolts, p.biasHighVolts],
        unityVolts: p.unityVolts,
        deadVolts: deadOf(p),
        bothSigns: p.quadrants === 4,
      }),
    },
    gains: [
      {
        signals: ['in', 'in2'],
        controls: ['cv', 'cv2'],
        balances: (p) => p.quadrants === 4,
        gain(p) {
          const curve = responseCurve(p.response, p.quadrants, p.maxGain);
          const boost = gainOf(p.boostDb);
          return ([cv = 0, cv2 = 0]) => boost * curve.f(shareOf(p, p.cvAmount * cv + cv2 + p.bias));
        },
      },
    ],
  },
  offered: 2,
  panel: {
    starts: { bias: 5 },
    below: [
      ['biasLowVolts', 'biasHighVolts'],
      ['deadVolts', 'unityVolts'],
    ],
  },
  params: {
    cvAmount: number(1, -1, 1),
    bias: volts(0, between('biasLowVolts', 'biasHighVolts')),
    biasLowVolts: reach(volts(-5)),
    biasHighVolts: reach(volts(5)),
    unityVolts: setUp(number(5, 0.5, 12, 'V')),
    deadVolts: setUp(number(0, 0, 2, 'V')),
    response: number(0, 0, 1),
    quadrants: setUp(choice([2, 4])),
    maxGain: setUp(number(2, 0, 10)),
    boostDb: number(0, 0, 12, 'dB'),
    coupling: setUp(choice(['dc', 'ac'])),
    bleed: setUp(number(0, -0.1, 0.1)),
    bleedTrim: setUp(number(0, -0.1, 0.1)),
    limitVolts: setUp(orNone(null, 0.1, 24, 'V')),
  },
  brief: (p) =>
    `${p.quadrants === 4 ? '4-quadrant, ' : ''}${p.response === 0 ? 'linear' : p.response === 1 ? 'exponential' : 'lin/exp'}, unity at ${showVolts(p.unityVolts, false)}`,
  scale: { full: 'unityVolts' },
  inputs: () => [signal('in'), signal('in2'), control('cv', 0, 'cvAmount'), control('cv2'), signal('chain')],
  outputs: () => ['out', 'inverted'],
  memory: (p) => p.coupling === 'ac',
  negated: { inverted: 'out' },
  law(b, p, io): Record<string, Affine> {
    const c = controlVolts(b, p, io);
    const span = p.unityVolts - deadOf(p);
    const gain = respond(b, b.scale(c, 1 / span, -deadOf(p) / span), p);
    const both = b.sum([io.in('in'), 1], [io.in('in2'), 1]);
    const product = b.mul(gain, p.coupling === 'ac' ? b.couple(both) : both);
    const sum = b.sum([product, gainOf(p.boostDb)], [c, p.bleed + p.bleedTrim], [io.in('chain'), 1]);
    const out = p.limitVolts === null ? sum : b.curve(sum, softLimit(p.limitVolts));
    return { out, inverted: b.scale(out, -1) };
  },
  ends: [
    {
      socket: 'cv',
      sockets: ['cv', 'cv2'],
      quantity: 'gain',
      unit: () => 'dB',
      always: true,
      says: 'opens above 0 V, fully open at its unity voltage',
      drive: controlVolts,
      value(p, c) {
        const gain = responseCurve(p.response, p.quadrants, p.maxGain).f(shareOf(p, c));
        return dbOf(gain * gainOf(p.boostDb));
      },
      signed: shareOf,
      oneSided: (p) => p.quadrants === 2,
      window: (p) => [p.quadrants === 2 ? p.deadVolts : -p.unityVolts, p.unityVolts],
      span(p, lo, hi) {
        if (p.quadrants === 2 || lo >= 0) return [lo, hi];
        return hi <= 0 ? [hi, lo] : [0, Math.max(-lo, hi)];
      },
    },
  ],
});
