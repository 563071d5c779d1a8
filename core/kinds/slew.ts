import { exp2 } from '../law/fastmath';
import { addressOf, always, control, kind, signal } from './kind';
import type { EndSpec, Wiring } from './kind';
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
    const dt = 1 / wiring.sampleRate;
    const step = p.law === 'linear' ? (T: number) => (FULL_VOLTS / T) * dt : (T: number) => -Math.expm1((-5 * dt) / T);
    const rising = new Steps(wiring, 'riseCv', step, timeAt(p, 'rise', 0));
    const falling = new Steps(wiring, 'fallCv', step, timeAt(p, 'fall', 0));
    const run = p.law === 'linear' ? wiring.kernels.lineSlew : wiring.kernels.shareSlew;
    let y = 0;
    return (from, to, k0) => {
      const start = k0 + from === 0 ? (input[from] as number) : y;
      const [ups, downs] = [rising.at(from, to), falling.at(from, to)];
      y = run(addressOf(input, from), ups, downs, start, addressOf(out, from), to - from);
    };
  },
  ends: [timeEnd('rise'), timeEnd('fall')],
});

/** How far a lag may go at each sample, one way. */
class Steps {
  private readonly buffer: Float64Array;
  private readonly cvs: Float64Array;
  private readonly steady: boolean;
  private cv = NaN;
  private step = 0;

  constructor(
    wiring: Wiring,
    socket: string,
    private readonly law: (seconds: number) => number,
    private readonly atZero: number,
  ) {
    this.buffer = wiring.scratch();
    this.cvs = wiring.input(socket);
    this.steady = wiring.steady(socket) !== null;
    if (this.steady) this.buffer.fill(this.stepAt(this.cvs[0] as number));
  }

  /** The steps of samples `from..to-1`, by address. */
  at(from: number, to: number): number {
    if (!this.steady) for (let i = from; i < to; i++) this.buffer[i] = this.stepAt(this.cvs[i] as number);
    return addressOf(this.buffer, from);
  }

  private stepAt(cv: number): number {
    if (cv !== this.cv) {
      this.cv = cv;
      this.step = this.law(this.atZero * exp2(cv));
    }
    return this.step;
  }
}
