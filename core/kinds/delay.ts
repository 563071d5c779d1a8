import { exp2 } from '../law/fastmath';
import { isZero } from '../law/affine';
import { always, control, kind, signal } from './kind';
import { number, seconds } from './params';
import { briefSeconds } from '../units/show';

const SHORTEST = 0.0005;
const LONGEST = 5;
const MOST_FEEDBACK = 1.1;

const clamp = (x: number, lo: number, hi: number): number => Math.min(hi, Math.max(lo, x));

export const delay = kind({
  name: 'delay',
  title: 'Delay',
  does: 'delay line with feedback',
  aliases: ['echo'],
  words: {
    params: { seconds: 'Delay time', timeAmount: 'Time CV amount', feedbackAmount: 'Feedback', mix: 'Dry/wet mix' },
  },
  formula:
    'time seconds·2^(timeAmount·time), 0.0005 to 5 s and at least one sample, linear interpolation; f = clamp(feedbackAmount + feedback/10, 0, 1.1); line = in + f·delayed, clipped at the supply rails; out = (1 − mix)·in + mix·delayed',
  category: 'between',
  sound: {
    noiseMicrovolts: 300,
    feedback: { param: 'feedbackAmount', input: 'feedback', fullVolts: 10, most: 1.1 },
    loudest(p, input) {
      if (input !== 'in') return null;
      return p.feedbackAmount < 1 ? 1 - p.mix + p.mix / (1 - p.feedbackAmount) : Infinity;
    },
    audioRate: true,
  },
  panel: {
    howls: ['feedbackAmount'],
  },
  params: {
    // What is heard bends by an octave at most, as a tape's does.
    seconds: { ...seconds(0.3, SHORTEST, LONGEST), glides: 0.5 },
    timeAmount: number(0, -1, 1),
    feedbackAmount: number(0.3, 0, MOST_FEEDBACK),
    mix: number(0.5, 0, 1),
  },
  brief: (p) => briefSeconds(p.seconds),
  scale: { times: ['seconds'] },
  inputs: () => [signal('in'), control('time', 0, 'timeAmount'), control('feedback')],
  outputs: () => ['out'],
  memory: always,
  law(b, p, io) {
    const input = io.in('in');
    if (isZero(input)) return { out: b.constant(0) };
    const [lo, hi] = io.range(input);
    const [, mostFeedback] = io.range(io.in('feedback'));
    const fedBack = p.feedbackAmount + mostFeedback / 10 > 0;
    // What comes late is what was there before, or the 0 V of an empty line.
    const delayed = fedBack
      ? io.symbol('delayed', -Infinity, Infinity)
      : io.symbol('delayed', Math.min(0, lo), Math.max(0, hi));
    return { out: b.sum([input, 1 - p.mix], [delayed, p.mix]) };
  },
  kernel(p, wiring) {
    const [input, timeIn, feedbackIn] = [wiring.input('in'), wiring.input('time'), wiring.input('feedback')];
    const out = wiring.output('out');
    const { sampleRate, railVolts } = wiring;
    const size = Math.ceil(LONGEST * sampleRate) + 2;
    const state = wiring.keep('line', () => ({ line: new Float64Array(size), write: 0 }));
    const { line } = state;
    const delayAt = (cv: number): number =>
      Math.max(1, clamp(p.seconds * exp2(p.timeAmount * cv), SHORTEST, LONGEST) * sampleRate);
    let lastCv = 0;
    let samples = delayAt(0);
    let whole = Math.floor(samples);
    return (from, to) => {
      let { write } = state;
      for (let i = from; i < to; i++) {
        if (timeIn[i] !== lastCv) {
          lastCv = timeIn[i] as number;
          samples = delayAt(lastCv);
          whole = Math.floor(samples);
        }
        const share = samples - whole;
        // An empty line holds 0 V, so what has not been written yet reads as it should.
        const near = write >= whole ? write - whole : write - whole + size;
        const far = near > 0 ? near - 1 : size - 1;
        const delayed = (line[near] as number) * (1 - share) + (line[far] as number) * share;
        const x = input[i] as number;
        const f = clamp(p.feedbackAmount + (feedbackIn[i] as number) / 10, 0, MOST_FEEDBACK);
        line[write] = clamp(x + f * delayed, -railVolts, railVolts);
        if (++write === size) write = 0;
        out[i] = (1 - p.mix) * x + p.mix * delayed;
      }
      state.write = write;
    };
  },
  ends: [
    {
      socket: 'time',
      sockets: ['time'],
      quantity: 'time',
      unit: () => 's',
      always: false,
      says: 'each volt doubles the time at full CV amount',
      drive: (b, p, io) => b.scale(io.in('time'), p.timeAmount),
      value: (p, v) => clamp(p.seconds * 2 ** v, SHORTEST, LONGEST),
      window: (p) => [Math.log2(SHORTEST / p.seconds), Math.log2(LONGEST / p.seconds)],
      pins: true,
    },
    {
      socket: 'feedback',
      sockets: ['feedback'],
      quantity: 'position',
      unit: () => '%',
      always: false,
      says: '10 V adds 100% feedback; at 100% and above it builds up',
      drive: (b, p, io) => b.scale(io.in('feedback'), 1, 10 * p.feedbackAmount),
      value: (_p, v) => 100 * clamp(v / 10, 0, MOST_FEEDBACK),
      window: () => [0, 10 * MOST_FEEDBACK],
      pins: true,
    },
  ],
});
