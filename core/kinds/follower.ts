import type { Lin } from '../law/lin';
import { Gate } from './detect';
import { always, kind, signal } from './kind';
import { lagShare } from './lag';
import { number, seconds, volts } from './params';
import { showNumber } from '../units/show';

const TOP = 10;

export const follower = kind({
  name: 'follower',
  title: 'Envelope follower',
  does: 'follows how loud it is',
  formula:
    'abs(in)·gain through an rc lag (τ = T/5, starts at its first input), clipped 0..10; gate: high from thresholdVolts, low 0.1 V below it',
  room: 'between',
  audio: false,
  params: {
    gain: number(1, 0, 20),
    attack: seconds(0.002, 0, 10),
    release: seconds(0.1, 0, 10),
    thresholdVolts: volts(1),
    gateVolts: volts(5),
  },
  brief: (p) => `gain ${showNumber(p.gain, 1)}`,
  inputs: () => [signal('in')],
  outputs: () => ['out', 'gate'],
  memory: always,
  law(b, p, io): Record<string, Lin> {
    const [lo, hi] = io.range(b.clamp(b.scale(b.abs(io.in('in')), p.gain), 0, TOP));
    return {
      out: io.symbol('out', lo, hi),
      gate: io.symbol('gate', Math.min(0, p.gateVolts), Math.max(0, p.gateVolts)),
    };
  },
  kernel(p, wiring) {
    const [input, out, gateOut] = [wiring.input('in'), wiring.output('out'), wiring.output('gate')];
    const [up, down] = [lagShare(p.attack, wiring.sampleRate), lagShare(p.release, wiring.sampleRate)];
    const gate = new Gate(p.thresholdVolts);
    let y = 0;
    return (from, to, k0) => {
      if (k0 + from === 0) y = Math.abs(input[from] as number) * p.gain;
      for (let i = from; i < to; i++) {
        const x = Math.abs(input[i] as number) * p.gain;
        y += (x - y) * (x > y ? up : down);
        const v = Math.min(TOP, Math.max(0, y));
        gate.rises(v);
        out[i] = v;
        gateOut[i] = gate.high ? p.gateVolts : 0;
      }
    };
  },
});
