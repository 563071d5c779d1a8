import { describe, expect, it } from 'vitest';
import { firstDeviation } from '../testing/formula';
import type { Formula, Told } from '../testing/formula';
import type { ParamValues } from './params';

/**
 * The laws of kinds, written down a second time from their formulas, one sample at a time and with nothing of the core
 * in them: what is simulated must be the same, and lie within what is guaranteed.
 */

const clip = (v: number, most: number): number => Math.min(most, Math.max(-most, v));
const clamp = (v: number): number => Math.min(1, Math.max(0, v));
const K = Math.log(1000);

/** Linear at 0, exponential at 1; odd. */
function bent(x: number, response: number): number {
  const size = Math.abs(x);
  return Math.sign(x) * ((1 - response) * size + (response * (Math.exp(K * size) - 1)) / (Math.exp(K) - 1));
}

function folded(v: number, most: number, folds: number): number {
  let at = v;
  for (let i = 0; i < folds; i++) {
    if (at > most) at = 2 * most - at;
    else if (at < -most) at = -2 * most - at;
  }
  return at;
}

/** Takes away what stays: 2 Hz, beginning at its first input. */
function coupled(sampleRate: number): (x: number) => number {
  let level: number | null = null;
  return (x) => {
    level ??= x;
    const y = x - level;
    level += y * (1 - Math.exp((-2 * Math.PI * 2) / sampleRate));
    return y;
  };
}

/** A gate detector: whether it rises now, and whether it is up. */
function detector(threshold: number): (v: number) => { rises: boolean; high: boolean } {
  let high = false;
  return (v) => {
    const was = high;
    high = high ? v >= threshold - 0.1 : v >= threshold;
    return { rises: high && !was, high };
  };
}

/** Goes to what comes in by another time up than down, in its own way, beginning at its first input. */
function lag({ sampleRate }: Told, law: 'linear' | 'rc'): (x: number, up: number, down: number) => number {
  let y: number | null = null;
  return (x, up, down) => {
    y ??= x;
    const seconds = x > y ? up : down;
    if (seconds === 0) y = x;
    else if (law === 'rc') y += (x - y) * (1 - Math.exp(-1 / sampleRate / (seconds / 5)));
    else y += clip(x - y, 10 / seconds / sampleRate);
    return y;
  };
}

const formulas: Readonly<Record<string, Formula>> = {
  attenuator: scaled,
  attenuverter: scaled,
  offset:
    ({ p, n }) =>
    (v) => ({
      out: p.order === 'scaleThenShift' ? n('amount') * v('in') + n('volts') : n('amount') * (v('in') + n('volts')),
    }),
  inverter: () => (v) => ({ out: -v('in') }),
  mixer:
    ({ p, n, plugged }) =>
    (v) => {
      const all = Array.from({ length: n('inputs') }, (_, i) => `in${i + 1}`);
      const sum = all.reduce((s, name, i) => s + n(`gain${i + 1}`) * v(name), 0);
      const used = Math.max(1, all.filter(plugged).length);
      const out = ((p.law === 'average' ? sum / used : sum) + n('biasVolts')) * (p.inverting ? -1 : 1);
      return { out, inverted: -out };
    },
  vca({ p, n, sampleRate }) {
    const ac = coupled(sampleRate);
    return (v) => {
      const c = n('cvAmount') * v('cv') + v('cv2') + n('bias');
      const two = n('quadrants') === 2;
      const x = two ? Math.max(0, c - n('deadVolts')) / (n('unityVolts') - n('deadVolts')) : c / n('unityVolts');
      const gain = clip(bent(x, n('response')), n('maxGain'));
      const sum = v('in') + v('in2');
      const signal = p.coupling === 'ac' ? ac(sum) : sum;
      const bleed = (n('bleed') + n('bleedTrim')) * c;
      const raw = 10 ** (n('boostDb') / 20) * gain * signal + bleed + v('chain');
      const out = p.limitVolts === null ? raw : n('limitVolts') * Math.tanh(raw / n('limitVolts'));
      return { out, inverted: -out };
    };
  },
  ringMod({ p, n, sampleRate }) {
    const [first, second] = [coupled(sampleRate), coupled(sampleRate)];
    return (v) => {
      const [a, b] = p.coupling === 'ac' ? [first(v('a')), second(v('b'))] : [v('a'), v('b')];
      const bleed = (n('bleedA') + n('trimA')) * a + (n('bleedB') + n('trimB')) * b;
      return { out: (a * b) / n('scaleVolts') + bleed };
    };
  },
  polarizer:
    ({ n, plugged }) =>
    (v) => {
      const most = n('clipVolts');
      const m = clip(n('gain') * v('in') + n('biasAmount') * (plugged('bias') ? v('bias') : 5), most);
      const x = bent(v('cv') / n('unityVolts'), n('curve'));
      const share = n('modulation');
      return { out: clip((1 - share) * m + share * m * x + v('chain'), most) };
    },
  crossfade:
    ({ p, n }) =>
    (v) => {
      const at = clamp(n('position') + (n('cvAmount') * v('cv')) / n('fullVolts'));
      const turn = (Math.PI * at) / 2;
      const [ka, kb] = p.law === 'linear' ? [1 - at, at] : [Math.cos(turn), Math.sin(turn)];
      return { a: v('in') * ka, b: v('in') * kb, out: v('in') * ka + v('in2') * kb };
    },
  rectifier:
    ({ p }) =>
    (v) => {
      const x = v('in');
      return { out: p.mode === 'full' ? Math.abs(x) : p.mode === 'positive' ? Math.max(x, 0) : Math.min(x, 0) };
    },
  shaper:
    ({ p, n }) =>
    (v) => {
      const most = n('clipVolts');
      const x = folded(n('gain') * v('in') + n('biasVolts') + v('bias'), most, n('folds'));
      return { out: p.knee === 'hard' ? clip(x, most) : most * Math.tanh(x / most) };
    },
  mult: () => (v) => ({ out1: v('in'), out2: v('in'), out3: v('in'), out4: v('in') }),
  lineIn:
    ({ n }) =>
    (v) => ({ out: v('in') * 10 ** (n('gainDb') / 20) }),
  slew(told) {
    const { p, n } = told;
    const moves = lag(told, p.law as 'linear' | 'rc');
    return (v) => {
      const both = n('bothAmount') * v('bothCv');
      const time = (way: string) => Math.max(n('minimum'), n(way)) * 2 ** (n(`${way}Amount`) * v(`${way}Cv`) + both);
      return { out: moves(v('in'), time('rise'), time('fall')) };
    };
  },
  follower(told) {
    const { n } = told;
    const [moves, gate] = [lag(told, 'rc'), detector(n('thresholdVolts'))];
    return (v) => {
      const out = Math.min(10, moves(Math.abs(v('in')) * n('gain'), n('attack'), n('release')));
      return { out, gate: gate(out).high ? n('gateVolts') : 0 };
    };
  },
  comparator({ n }) {
    let high = false;
    return (v) => {
      const level = n('thresholdVolts') + v('threshold');
      high = high ? v('in') >= level - n('hysteresis') : v('in') >= level;
      const [low, up] = [n('lowVolts'), n('highVolts')];
      return { out: high ? up : low, inverted: high ? low : up };
    };
  },
  sampleHold({ p, n }) {
    const clock = detector(n('thresholdVolts'));
    let kept = 0;
    return (v) => {
      const { rises, high } = clock(v('clock'));
      if (p.mode === 'sample' ? rises : high) kept = v('in');
      return { out: kept };
    };
  },
  divider({ n }) {
    const [clock, reset] = [detector(n('thresholdVolts')), detector(n('thresholdVolts'))];
    let count = -1;
    return (v) => {
      if (reset(v('reset')).rises) count = -1;
      if (clock(v('in')).rises) count = (count + 1) % n('by');
      return { out: count >= 0 && count < Math.ceil(n('by') / 2) ? n('highVolts') : n('lowVolts') };
    };
  },
  logic({ p, n }) {
    const [first, second] = [detector(n('thresholdVolts')), detector(n('thresholdVolts'))];
    return (v) => {
      const [a, b] = [first(v('a')).high, second(v('b')).high];
      if (p.op === 'min') return { out: Math.min(v('a'), v('b')) };
      if (p.op === 'max') return { out: Math.max(v('a'), v('b')) };
      const up = p.op === 'and' ? a && b : p.op === 'or' ? a || b : a !== b;
      return { out: up ? n('highVolts') : 0 };
    };
  },
  delay({ n, sampleRate }) {
    const line: number[] = [];
    return (v) => {
      const seconds = Math.min(5, Math.max(0.0005, n('seconds') * 2 ** (n('timeAmount') * v('time'))));
      const back = line.length - seconds * sampleRate;
      const [from, share] = [Math.floor(back), back - Math.floor(back)];
      const at = (k: number): number => line[k] ?? 0;
      const delayed = (1 - share) * at(from) + share * at(from + 1);
      const feedback = Math.min(1.1, Math.max(0, n('feedbackAmount') + v('feedback') / 10));
      line.push(clip(v('in') + feedback * delayed, 12));
      return { out: (1 - n('mix')) * v('in') + n('mix') * delayed };
    };
  },
  quantizer({ p, n, plugged }) {
    const semitones = (p.scale === 'chromatic' ? [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11] : p.scale) as readonly number[];
    const trigger = detector(1);
    let [note, before] = [0, true];
    const nearest = (x: number): number => {
      const all = [-2, -1, 0, 1, 2].flatMap((o) => semitones.map((s) => Math.floor(x) + o + (s + n('root')) / 12));
      // Of two as near, the upper.
      return all.reduce((a, b) => {
        const [da, db] = [Math.abs(a - x), Math.abs(b - x)];
        return db < da - 1e-9 || (Math.abs(db - da) <= 1e-9 && b > a) ? b : a;
      });
    };
    return (v) => {
      const x = p.accepts === 'positive' ? Math.max(0, v('in')) : v('in');
      if (!plugged('trigger') || trigger(v('trigger')).rises) {
        const next = nearest(x);
        // It is left only so far past the middle.
        const past = (Math.abs(x - note) - Math.abs(x - next)) / 2;
        if (before || n('hysteresisCents') === 0 || past > n('hysteresisCents') / 1200) note = next;
        before = false;
      }
      return { out: before ? 0 : note };
    };
  },
};

/** Scales what comes in, or the normal in its place. */
function scaled({ n, plugged }: Told) {
  return (v: (socket: string) => number) => ({ out: n('amount') * (plugged('in') ? v('in') : n('normalVolts')) });
}

/** What loading decides is told elsewhere; a scale of names is one that is written out here. */
const HELD: Readonly<Record<string, ParamValues>> = {
  attenuator: { build: 'active' },
  mult: { build: 'buffered' },
  quantizer: { scale: [0, 3, 3.5, 7, 10] },
};

describe('does at each sample what its formula says, and stays within its bound:', () => {
  it.each(Object.entries(formulas))('%s', (name, formula) => {
    expect(firstDeviation(name, formula, 24, HELD[name])).toBeNull();
  });
});
