import { exp2 } from '../law/fastmath';
import { always, control, kind, signal } from './kind';
import type { EndSpec } from './kind';
import { choice, number, seconds } from './params';
import { briefSeconds } from '../units/show';

interface Times {
  readonly rise: number;
  readonly fall: number;
  readonly minimum: number;
}

const timeAt = (p: Times, way: 'rise' | 'fall', cv: number): number => Math.max(p.minimum, p[way]) * exp2(cv);

/** A linear lag crosses this many volts in its time. */
const FULL_VOLTS = 10;

function timeEnd(way: 'rise' | 'fall'): EndSpec<Times> {
  const socket = `${way}Cv`;
  return {
    socket,
    sockets: [socket],
    quantity: 'time',
    unit: () => 's',
    always: false,
    says: 'one volt doubles the time',
    drive: (_b, _p, io) => io.in(socket),
    value: (p, v) => timeAt(p, way, v),
    window: () => [-12, 12],
  };
}

export const slew = kind({
  name: 'slew',
  title: 'Slew limiter',
  does: 'smooths',
  formula: 'T = max(minimum, rise or fall)·2^cv; linear: at most 10/T V/s; rc: out += (in − out)·(1 − e^(−5dt/T))',
  room: 'between',
  audio: false,
  params: {
    law: choice(['linear', 'rc']),
    rise: seconds(0, 0, 60),
    fall: seconds(0, 0, 60),
    minimum: number(0, 0, 10, 's', { taper: 'log' }),
  },
  brief: (p) => `${p.law === 'rc' ? 'rc' : 'linear'}, ${briefSeconds(p.rise)} up, ${briefSeconds(p.fall)} down`,
  inputs: () => [signal('in'), control('riseCv'), control('fallCv')],
  outputs: () => ['out'],
  memory: always,
  law(_b, _p, io) {
    return { out: io.symbol('out', ...io.range(io.in('in'))) };
  },
  kernel(p, wiring) {
    const [input, out] = [wiring.input('in'), wiring.output('out')];
    const [riseCv, fallCv] = [wiring.input('riseCv'), wiring.input('fallCv')];
    const dt = 1 / wiring.sampleRate;
    const step = p.law === 'linear' ? (T: number) => (FULL_VOLTS / T) * dt : (T: number) => -Math.expm1((-5 * dt) / T);
    const rising = new Lag(step, timeAt(p, 'rise', 0));
    const falling = new Lag(step, timeAt(p, 'fall', 0));
    let y = 0;
    const rc = p.law === 'rc';
    return (from, to, k0) => {
      let v = k0 + from === 0 ? (input[from] as number) : y;
      for (let i = from; i < to; i++) {
        const x = input[i] as number;
        const up = x > v;
        const lag = up ? rising : falling;
        const cv = (up ? riseCv[i] : fallCv[i]) as number;
        if (cv !== lag.cv) lag.set(cv);
        if (lag.seconds === 0) v = x;
        else if (rc) v += (x - v) * lag.step;
        else v = up ? Math.min(x, v + lag.step) : Math.max(x, v - lag.step);
        out[i] = v;
      }
      y = v;
    };
  },
  ends: [timeEnd('rise'), timeEnd('fall')],
});

/** One way's time and what it allows a sample, kept until its control voltage changes. */
class Lag {
  cv = 0;
  seconds: number;
  step: number;

  constructor(
    private readonly law: (seconds: number) => number,
    private readonly atZero: number,
  ) {
    this.seconds = atZero;
    this.step = law(atZero);
  }

  set(cv: number): void {
    this.cv = cv;
    this.seconds = this.atZero * exp2(cv);
    this.step = this.law(this.seconds);
  }
}
