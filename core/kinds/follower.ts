import type { Laws } from '../law/builder';
import type { Affine, Range } from '../law/affine';
import { fateOf, keptGate } from './detect';
import { always, kind, signal } from './kind';
import type { Sockets } from './kind';
import { lagShare } from './response';
import { number, seconds, volts, setUp } from './params';
import { showNumber } from '../units/show';

const TOP = 10;

/** How far what it follows can go; its lag stays inside. */
const followed = (b: Laws, p: { readonly gain: number }, io: Sockets): Range =>
  io.range(b.clamp(b.scale(b.abs(io.in('in')), p.gain), 0, TOP));

export const follower = kind({
  name: 'follower',
  title: 'Envelope follower',
  does: 'turns level into a CV and a gate',
  aliases: ['sidechain', 'detector'],
  words: {
    params: {
      gain: 'Gain',
      attack: 'Attack',
      release: 'Release',
      thresholdVolts: 'Gate threshold',
      gateVolts: 'Gate level',
    },
  },
  formula:
    'abs(in)·gain through an rc lag (τ = T/5, starts at its first input), clipped 0..10; gate: high from thresholdVolts, low 0.1 V below it',
  category: 'between',
  sound: {
    smooths: true,
  },
  params: {
    gain: number(1, 0, 20),
    attack: seconds(0.002, 0, 10),
    release: seconds(0.1, 0, 10),
    thresholdVolts: setUp(volts(1)),
    gateVolts: setUp(volts(5)),
  },
  brief: (p) => `gain ${showNumber(p.gain, 1)}`,
  inputs: () => [signal('in')],
  outputs: () => ['out', 'gate'],
  timing: {
    gates: ['gate'],
    detects: {
      input: 'in',
      threshold: 'thresholdVolts',
      gateState: (b, p, io) => fateOf(followed(b, p, io), p.thresholdVolts),
    },
  },
  source: {
    remakes: always,
  },
  memory: always,
  law(b, p, io): Record<string, Affine> {
    const range = followed(b, p, io);
    const known = fateOf(range, p.thresholdVolts);
    const gate =
      known === 'moves'
        ? io.symbol('gate', Math.min(0, p.gateVolts), Math.max(0, p.gateVolts))
        : b.constant(known === 'high' ? p.gateVolts : 0);
    return { out: io.symbol('out', ...range), gate };
  },
  kernel(p, wiring) {
    const [input, out, gateOut] = [wiring.input('in'), wiring.output('out'), wiring.output('gate')];
    const { detected } = wiring;
    const [up, down] = [lagShare(p.attack, wiring.sampleRate), lagShare(p.release, wiring.sampleRate)];
    const gate = keptGate(wiring, 'gate', p.thresholdVolts);
    const state = wiring.keep('state', () => ({ y: 0, begun: false }));
    return (from, to) => {
      let y = state.begun ? state.y : Math.abs(input[from] as number) * p.gain;
      state.begun = true;
      for (let i = from; i < to; i++) {
        const x = Math.abs(input[i] as number) * p.gain;
        y += (x - y) * (x > y ? up : down);
        const v = Math.min(TOP, Math.max(0, y));
        gate.rises(v);
        detected[i] = gate.high ? 1 : 0;
        out[i] = v;
        gateOut[i] = gate.high ? p.gateVolts : 0;
      }
      state.y = y;
    };
  },
});
