import { exp2 } from '../law/fastmath';
import { always, control, kind, signal } from './kind';
import type { EndSpec, Wiring } from './kind';
import { choice, number, seconds, setUp } from './params';
import { briefSeconds } from '../units/show';

interface Times {
  readonly rise: number;
  readonly fall: number;
  readonly minimum: number;
  readonly riseAmount: number;
  readonly fallAmount: number;
  readonly bothAmount: number;
}

type Way = 'rise' | 'fall';

const timeAt = (p: Times, way: Way, octaves: number): number => Math.max(p.minimum, p[way]) * exp2(octaves);

/** A linear lag crosses this many volts in its time. */
const FULL_VOLTS = 10;

function timeEnd(way: Way): EndSpec<Times> {
  const socket = `${way}Cv`;
  return {
    socket,
    sockets: [socket, 'bothCv'],
    quantity: 'time',
    unit: () => 's',
    always: true,
    says: 'each volt doubles the time at full CV amount',
    drive: (b, p, io) => b.sum([io.in(socket), p[`${way}Amount`]], [io.in('bothCv'), p.bothAmount]),
    value: (p, v) => timeAt(p, way, v),
    window: () => null,
  };
}

export const slew = kind({
  name: 'slew',
  title: 'Slew limiter',
  does: 'limits how fast a voltage rises and falls',
  aliases: ['lag', 'glide', 'portamento'],
  words: {
    params: {
      law: 'Slope',
      rise: 'Rise time',
      fall: 'Fall time',
      minimum: 'Minimum time',
      riseAmount: 'Rise CV amount',
      fallAmount: 'Fall CV amount',
      bothAmount: 'Both CV amount',
    },
    options: { law: { linear: 'Linear', rc: 'Exponential (RC)' } },
  },
  formula:
    'T = max(minimum, rise or fall)·2^(amount·cv + bothAmount·bothCv); linear: at most 10/T V/s; rc: out += (in − out)·(1 − e^(−5dt/T))',
  category: 'between',
  timing: {
    lags: 'in',
    stages: (p) => {
      const curve = p.law === 'rc' ? 1 : 0;
      const forVolts = p.law === 'linear' ? { forVolts: FULL_VOLTS } : {};
      return [
        { param: 'rise', up: true, curve, ...forVolts },
        { param: 'fall', up: false, curve, ...forVolts },
      ];
    },
  },
  panel: {
    starts: { rise: 0.1, fall: 0.1 },
  },
  params: {
    law: choice(['linear', 'rc']),
    rise: seconds(0, 0, 60),
    fall: seconds(0, 0, 60),
    minimum: setUp(number(0, 0, 10, 's', { taper: 'log' })),
    riseAmount: number(1, -1, 1),
    fallAmount: number(1, -1, 1),
    bothAmount: number(1, -1, 1),
  },
  brief: (p) =>
    `${p.law === 'rc' ? 'exponential' : 'linear'}, rise ${briefSeconds(p.rise)}, fall ${briefSeconds(p.fall)}`,
  scale: { times: ['rise', 'fall', 'minimum'] },
  inputs: () => [
    signal('in'),
    ...(['rise', 'fall', 'both'] as const).map((way) => control(`${way}Cv`, 0, `${way}Amount`)),
  ],
  outputs: () => ['out'],
  memory: always,
  law(_b, _p, io) {
    return { out: io.symbol('out', ...io.range(io.in('in'))) };
  },
  kernel(p, wiring) {
    const [input, out] = [wiring.input('in'), wiring.output('out')];
    const dt = 1 / wiring.sampleRate;
    const step = p.law === 'linear' ? (T: number) => (FULL_VOLTS / T) * dt : (T: number) => -Math.expm1((-5 * dt) / T);
    const rising = new Steps(wiring, p, 'rise', step);
    const falling = new Steps(wiring, p, 'fall', step);
    const law = p.law === 'linear' ? 'line' : 'share';
    const lag = wiring.kernels.slew(law, input, rising.buffer, falling.buffer, out);
    const state = wiring.keep('state', () => ({ y: 0, begun: false }));
    return (from, to) => {
      const start = state.begun ? state.y : (input[from] as number);
      state.begun = true;
      rising.fill(from, to);
      falling.fill(from, to);
      state.y = lag(from, to, start);
    };
  },
  ends: [
    timeEnd('rise'),
    timeEnd('fall'),
    {
      socket: 'bothCv',
      sockets: ['bothCv'],
      quantity: 'volts',
      unit: () => 'V',
      always: false,
      says: 'each volt doubles both times at full CV amount',
      drive: (_b, _p, io) => io.in('bothCv'),
      value: (_p, v) => v,
      window: () => null,
    },
  ],
});

/** How far a lag may go at each sample, one way. */
class Steps {
  readonly buffer: Float64Array;
  private readonly own: Float64Array;
  private readonly both: Float64Array;
  private readonly amount: number;
  private readonly bothAmount: number;
  private readonly atZero: number;
  private readonly steady: boolean;
  private octaves = NaN;
  private step = 0;

  constructor(
    wiring: Wiring,
    p: Times,
    way: Way,
    private readonly law: (seconds: number) => number,
  ) {
    this.buffer = wiring.scratch();
    this.own = wiring.input(`${way}Cv`);
    this.both = wiring.input('bothCv');
    this.amount = p[`${way}Amount`];
    this.bothAmount = p.bothAmount;
    this.atZero = timeAt(p, way, 0);
    this.steady = wiring.steady(`${way}Cv`) !== null && wiring.steady('bothCv') !== null;
    if (this.steady) this.buffer.fill(this.stepAt(0));
  }

  /** Works out the steps of samples `from..to-1`. */
  fill(from: number, to: number): void {
    if (!this.steady) for (let i = from; i < to; i++) this.buffer[i] = this.stepAt(i);
  }

  private stepAt(i: number): number {
    const octaves = this.amount * (this.own[i] as number) + this.bothAmount * (this.both[i] as number);
    if (octaves !== this.octaves) {
      this.octaves = octaves;
      this.step = this.law(this.atZero * exp2(octaves));
    }
    return this.step;
  }
}
