import type { Laws } from '../law/builder';
import type { Curve, Affine } from '../law/affine';
import { control, kind, knob, never, signal } from './kind';
import type { EndSpec, GainSpec, Sockets } from './kind';
import { dbOf } from '../units/ratios';
import { choice, number, setUp } from './params';
import { showNumber } from '../units/show';

interface Fade {
  readonly position: number;
  readonly cvAmount: number;
  readonly fullVolts: number;
}

/** Position as a voltage: fullVolts is all the way over. */
const drive = (b: Laws, p: Fade, io: Sockets): Affine =>
  b.sum([b.mul(knob(b, p, io, 'cvAmount'), io.in('cv')), 1], [knob(b, p, io, 'position'), p.fullVolts]);

/** sin(πx/2), rising on 0..1; its slope falls. */
const quarterSine: Curve = {
  key: 'quarter sine',
  f: (x) => Math.sin((Math.PI / 2) * x),
  minSlope: (_lo, hi) => Math.max(0, (Math.PI / 2) * Math.cos((Math.PI / 2) * hi)),
};

/** How much of one input passes; `share` of the way, straight or by equal power. */
function fadeOf(signalName: string, share: (at: number) => number): GainSpec<Fade & { readonly law: string }> {
  return {
    signals: [signalName],
    controls: ['cv'],
    gain(p) {
      const bend = p.law === 'linear' ? (x: number) => x : quarterSine.f;
      return ([cv = 0]) => bend(share(Math.min(1, Math.max(0, p.position + (p.cvAmount * cv) / p.fullVolts))));
    },
  };
}

/** How loud one input is, of a drive that opens it. */
const gainEnd = (
  quantity: 'gainA' | 'gainB',
  says: string,
  opens: typeof drive,
): EndSpec<Fade & { readonly law: string }> => ({
  socket: 'cv',
  sockets: ['cv'],
  quantity,
  further: true,
  unit: () => 'dB',
  always: true,
  says,
  drive: opens,
  value(p, v) {
    const share = Math.min(1, Math.max(0, v / p.fullVolts));
    return dbOf(p.law === 'linear' ? share : quarterSine.f(share));
  },
  window: (p) => [0, p.fullVolts],
});

export const crossfade = kind({
  name: 'crossfade',
  title: 'Crossfader / panner',
  does: 'crossfades two inputs, or pans one',
  aliases: ['pan'],
  words: {
    params: { position: 'Position', cvAmount: 'CV amount', fullVolts: 'Full-scale CV', law: 'Fade curve' },
    options: { law: { linear: 'Linear', equalPower: 'Equal power' } },
  },
  formula:
    'p = clamp(position + cvAmount·cv/fullVolts, 0, 1); a = in·ka; b = in·kb; out = in·ka + in2·kb; linear: 1 − p, p; equalPower: cos(πp/2), sin(πp/2)',
  category: 'between',
  offered: 5,
  params: {
    position: number(0.5, 0, 1),
    cvAmount: number(0, -1, 1),
    fullVolts: setUp(number(10, 0.5, 12, 'V')),
    law: choice(['linear', 'equalPower']),
  },
  brief: (p) => `position ${showNumber(100 * p.position, 0)}%`,
  inputs: () => [signal('in'), signal('in2'), control('cv', 0, 'cvAmount')],
  outputs: () => ['a', 'b', 'out'],
  memory: never,
  panel: { voltages: ['position', 'cvAmount'] },
  law(b, p, io): Record<string, Affine> {
    const at = b.clamp(b.scale(drive(b, p, io), 1 / p.fullVolts), 0, 1);
    const linear = p.law === 'linear';
    const kb = linear ? at : b.curve(at, quarterSine);
    const ka = linear ? b.scale(at, -1, 1) : b.curve(b.scale(at, -1, 1), quarterSine);
    const [a, second] = [b.mul(io.in('in'), ka), b.mul(io.in('in2'), kb)];
    return { a, b: b.mul(io.in('in'), kb), out: b.sum([a, 1], [second, 1]) };
  },
  stage: {
    gains: [fadeOf('in', (at) => 1 - at), fadeOf('in2', (at) => at)],
  },
  ends: [
    {
      socket: 'cv',
      sockets: ['cv'],
      quantity: 'position',
      unit: () => '%',
      always: true,
      says: '0% is input 1, 100% is input 2',
      drive,
      value: (p, v) => 100 * Math.min(1, Math.max(0, v / p.fullVolts)),
      window: (p) => [0, p.fullVolts],
      pins: true,
    },
    gainEnd('gainA', 'how much of the first input passes', (b, p, io) => b.scale(drive(b, p, io), -1, p.fullVolts)),
    gainEnd('gainB', 'how much of the second input passes', drive),
  ],
});
