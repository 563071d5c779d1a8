import { drawnAt, looped } from './drawn';
import { always, kind, never } from './kind';
import { choice, flag } from './params';
import type { PointsSpec } from './params';
import { showVolts } from '../units/show';

const points: PointsSpec = {
  type: 'points',
  default: [{ t: 0, volts: 0 }],
  most: 10_000,
};

export const gesture = kind({
  name: 'gesture',
  title: 'Gesture',
  does: 'a drawn or recorded fader move',
  aliases: ['automation', 'curve'],
  words: {
    params: { points: 'Breakpoints', interpolation: 'Interpolation', loop: 'Loop' },
    says: { points: 'times must increase from 0' },
    options: { interpolation: { linear: 'Linear', hold: 'Stepped' } },
  },
  formula:
    'between its points linear or held; before the first and after the last point their value; a loop’s period is the last t',
  category: 'source',
  electrical: {
    unracked: 'always',
  },
  panel: {
    drawn: 'points',
  },
  params: { points, interpolation: choice(['linear', 'hold']), loop: flag(false) },
  brief: (p) =>
    p.points.length === 1 ? showVolts(p.points[0]?.volts ?? 0) : `${p.points.length} points${p.loop ? ', looped' : ''}`,
  inputs: () => [],
  outputs: () => ['out'],
  memory: never,
  source: {
    free: always,
    period(p) {
      if (p.points.every((x) => x.volts === p.points[0]?.volts)) return 'none';
      const last = p.points[p.points.length - 1]?.t ?? 0;
      return p.loop && last > 0 ? { over: [last], under: [1] } : 'never';
    },
  },
  law(_b, p, io) {
    const at = p.points.map((x) => x.volts);
    return {
      out: io.symbol(
        'out',
        at.reduce((a, v) => Math.min(a, v)),
        at.reduce((a, v) => Math.max(a, v)),
      ),
    };
  },
  kernel(p, wiring) {
    const out = wiring.output('out');
    const period = p.points[p.points.length - 1]?.t ?? 0;
    const hold = p.interpolation === 'hold';
    const near = { index: 0 };
    const state = wiring.keep('state', () => ({ begins: -1 }));
    return (from, to, k0) => {
      if (state.begins < 0) state.begins = k0 + from;
      for (let i = from; i < to; i++) {
        const t = (k0 + i - state.begins) / wiring.sampleRate;
        out[i] = drawnAt(p.points, (x) => x.volts, p.loop && period > 0 ? looped(t, period) : t, hold, near);
      }
    };
  },
});
