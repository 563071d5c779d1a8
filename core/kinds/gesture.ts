import { always, kind, never } from './kind';
import { choice, flag } from './params';
import type { GesturePoint, PointsSpec } from './params';
import { showVolts } from '../units/show';

const points: PointsSpec = {
  type: 'points',
  default: [{ t: 0, volts: 0 }],
  most: 10_000,
  says: 'times rise strictly from 0 up',
};

/** The voltage at time `t` of a hand's move; `near` is the index of the last segment, a hint for the search. */
function voltsAt(list: readonly GesturePoint[], t: number, hold: boolean, near: { index: number }): number {
  const at = (i: number): GesturePoint => list[i] as GesturePoint;
  const last = list.length - 1;
  if (t < at(0).t) return at(0).volts;
  if (t >= at(last).t) return at(last).volts;
  let i = near.index <= last && at(near.index).t <= t ? near.index : 0;
  while (at(i + 1).t <= t) i++;
  near.index = i;
  if (hold) return at(i).volts;
  const [a, b] = [at(i), at(i + 1)];
  return a.volts + ((b.volts - a.volts) * (t - a.t)) / (b.t - a.t);
}

/** Time within a loop, seconds; a time within a nanosecond of the end is the start. */
function looped(t: number, period: number): number {
  const rest = t - Math.floor(t / period + 1e-12) * period;
  return Math.max(0, rest);
}

export const gesture = kind({
  name: 'gesture',
  title: 'Hand gesture',
  does: 'a hand on a fader, over time',
  formula:
    'between its points linear or held; before the first and after the last point their value; a loop’s period is the last t',
  room: 'source',
  unracked: 'always',
  drawn: 'points',
  audio: false,
  params: { points, interpolation: choice(['linear', 'hold']), loop: flag(false) },
  brief: (p) =>
    p.points.length === 1 ? showVolts(p.points[0]?.volts ?? 0) : `${p.points.length} points${p.loop ? ', looped' : ''}`,
  inputs: () => [],
  outputs: () => ['out'],
  memory: never,
  free: always,
  period(p) {
    if (p.points.every((x) => x.volts === p.points[0]?.volts)) return 'none';
    const last = p.points[p.points.length - 1]?.t ?? 0;
    return p.loop && last > 0 ? { over: [last], under: [1] } : 'never';
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
        out[i] = voltsAt(p.points, p.loop && period > 0 ? looped(t, period) : t, hold, near);
      }
    };
  },
});
