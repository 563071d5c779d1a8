import { control, kind, never, signal } from './kind';
import { number } from './params';
import { responseCurve } from './response';
import { showNumber } from '../units/show';

export const polarizer = kind({
  name: 'polarizer',
  title: 'Polarizer',
  does: 'scales, flips and is modulated',
  formula:
    'm = clip(gain·in + biasAmount·bias); x = g(cv/unityVolts), odd; out = clip((1 − modulation)·m + modulation·m·x + chain), clip at ±clipVolts; bias is normalled to +5 V',
  room: 'between',
  audio: false,
  params: {
    gain: number(1, -4, 4),
    biasAmount: number(0, -1, 1),
    modulation: number(0, 0, 1),
    curve: number(0, 0, 1),
    unityVolts: number(5, 0.5, 12, 'V'),
    clipVolts: number(10, 0.1, 24, 'V'),
  },
  brief: (p) => `gain ${showNumber(p.gain, 2)}`,
  inputs: () => [signal('in'), control('bias', 5), control('cv'), signal('chain')],
  outputs: () => ['out'],
  memory: never,
  law(b, p, io) {
    const m = b.clamp(b.sum([io.in('in'), p.gain], [io.in('bias'), p.biasAmount]), -p.clipVolts, p.clipVolts);
    const share = b.scale(io.in('cv'), 1 / p.unityVolts);
    const x = p.curve === 0 ? share : b.curve(share, responseCurve(p.curve, 4, Infinity));
    const out = b.sum([m, 1 - p.modulation], [b.mul(m, x), p.modulation], [io.in('chain'), 1]);
    return { out: b.clamp(out, -p.clipVolts, p.clipVolts) };
  },
});
