import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { predict } from '../answers/predict';
import { simulate } from '../simulate/simulate';

const rate = 1000;
const level = ['constant', { volts: 3, lowVolts: -12, highVolts: 12 }] as const;

function traceOf(
  parts: Parameters<typeof patchOf>[0],
  cables: readonly string[],
  socket: string,
  seconds = 1,
  more: object = {},
): Float64Array {
  const patch = patchOf(parts, cables, { duration: seconds, sampleRate: rate, bpm: 600 }, more);
  return simulate(patch, { traces: [socket] }).traces.get(socket)!;
}

const at = (x: Float64Array, seconds: number): number => x[Math.round(seconds * rate)]!;
const rises = (x: Float64Array, high = 5): number[] =>
  [...x.keys()].filter((k) => x[k] === high && (k === 0 || x[k - 1] !== high));
/** Pulses every 0.1 s, high for 0.05 s. */
const clock = ['clock'] as const;

describe('sequencer', () => {
  const steps = [
    { volts: 1, gate: true, tie: false },
    { volts: 2, gate: true, tie: true },
    { volts: 3, gate: false, tie: true },
  ];
  it('plays its first step at the first edge, at that very sample, and goes round', () => {
    const x = traceOf({ c: clock, s: ['sequencer', { steps }] }, ['c.out > s.clock'], 's.cv');
    expect([0, 0.1, 0.2, 0.3].map((t) => at(x, t))).toEqual([1, 2, 3, 1]);
    expect(x[99]).toBe(1);
  });
  it('its gate follows the clock, a tie holds it, a rest stays low though tied', () => {
    const x = traceOf({ c: clock, s: ['sequencer', { steps }] }, ['c.out > s.clock'], 's.gate');
    expect([0, 0.049, 0.05, 0.1, 0.199, 0.2, 0.299, 0.3].map((t) => at(x, t))).toEqual([5, 5, 0, 5, 5, 0, 0, 5]);
  });
  it('after a reset cv holds and gate is low until the next edge plays step 1', () => {
    const reset = [
      'gesture',
      {
        points: [
          { t: 0, volts: 0 },
          { t: 0.12, volts: 5 },
          { t: 0.13, volts: 0 },
        ],
        interpolation: 'hold',
      },
    ] as const;
    const parts = { c: clock, r: reset, s: ['sequencer', { steps }] } as const;
    const [cv, gate] = ['s.cv', 's.gate'].map((socket) =>
      traceOf(parts as never, ['c.out > s.clock', 'r.out > s.reset'], socket),
    ) as [Float64Array, Float64Array];
    expect([at(cv, 0.15), at(cv, 0.2), at(cv, 0.3)]).toEqual([2, 1, 2]);
    expect([at(gate, 0.11), at(gate, 0.12), at(gate, 0.199), at(gate, 0.2)]).toEqual([5, 0, 0, 5]);
  });
});

describe('divider', () => {
  it('by 2 is a flip-flop, by 3 high for two of three', () => {
    const by = (n: number) => traceOf({ c: clock, d: ['divider', { by: n }] }, ['c.out > d.in'], 'd.out');
    expect(rises(by(2))).toEqual([0, 200, 400, 600, 800]);
    expect([at(by(3), 0.1), at(by(3), 0.2), at(by(3), 0.3)]).toEqual([5, 0, 5]);
  });
  it('multiplies the period of its clock, a sequencer by its steps', () => {
    const parts = {
      c: clock,
      d: ['divider', { by: 3 }],
      s: ['sequencer', { steps: [{ volts: 1 }, { volts: 2 }] }],
    } as never;
    const { outputs } = predict(patchOf(parts, ['c.out > d.in', 'd.out > s.clock'], { bpm: 600, duration: 1 }));
    expect([outputs['d.out']!.repeatsEvery, outputs['s.cv']!.repeatsEvery]).toEqual([0.3, 0.6]);
  });
});

describe('sample and hold', () => {
  const ramp = [
    'gesture',
    {
      points: [
        { t: 0, volts: 0 },
        { t: 1, volts: 10 },
      ],
    },
  ] as const;
  it('takes the value of the edge’s own sample, 0 V before; or tracks while high', () => {
    const slow = ['clock', { bpm: 300, width: 0.5 }] as const;
    const run = (mode: string) =>
      traceOf({ g: ramp, c: slow, h: ['sampleHold', { mode }] } as never, ['g.out > h.in', 'c.out > h.clock'], 'h.out');
    expect([at(run('sample'), 0.1), at(run('sample'), 0.2), at(run('sample'), 0.399)]).toEqual([0, 2, 2]);
    expect([at(run('track'), 0.09), at(run('track'), 0.15)]).toEqual([expect.closeTo(0.9, 9), expect.closeTo(0.99, 9)]);
  });
});

describe('comparator and logic', () => {
  const tri = ['lfo', { rateHz: 1, lowVolts: 0, highVolts: 4 }] as const;
  it('is high from its threshold until more than the hysteresis below it; inverted is the other level', () => {
    const parts = {
      l: tri,
      c: ['comparator', { thresholdVolts: 3, hysteresis: 2, lowVolts: -1, highVolts: 6 }],
    } as const;
    const out = traceOf(parts as never, ['l.out > c.in'], 'c.out');
    const inverted = traceOf(parts as never, ['l.out > c.in'], 'c.inverted');
    // The triangle passes 3 V at 1/8 s and falls below 1 V after 5/8 s.
    expect([at(out, 0.124), at(out, 0.125), at(out, 0.625), at(out, 0.626)]).toEqual([-1, 6, 6, -1]);
    expect([...out].every((v, i) => v + inverted[i]! === 5)).toBe(true);
  });
  it('and, or, xor of gates; min and max of voltages', () => {
    const half = ['lfo', { shape: 'pulse', rateHz: 2, lowVolts: 0, highVolts: 5 }] as const;
    const quarter = ['lfo', { shape: 'pulse', rateHz: 1, lowVolts: 0, highVolts: 5 }] as const;
    const op = (name: string) =>
      traceOf({ a: half, b: quarter, l: ['logic', { op: name }] } as never, ['a.out > l.a', 'b.out > l.b'], 'l.out');
    const points = [0.1, 0.3, 0.6, 0.8];
    expect(points.map((t) => at(op('and'), t))).toEqual([5, 0, 0, 0]);
    expect(points.map((t) => at(op('or'), t))).toEqual([5, 5, 5, 0]);
    expect(points.map((t) => at(op('xor'), t))).toEqual([0, 5, 5, 0]);
    expect(points.map((t) => at(op('min'), t))).toEqual([5, 0, 0, 0]);
    expect(points.map((t) => at(op('max'), t))).toEqual([5, 5, 5, 0]);
  });
});

describe('follower', () => {
  it('follows the size through an rc lag, clips at 10, and gates', () => {
    const gate = ['lfo', { shape: 'pulse', rateHz: 1, phase: 0.5, lowVolts: 0, highVolts: 4 }] as const;
    const parts = { l: gate, f: ['follower', { gain: 2, attack: 0.2, release: 0.4 }] } as const;
    const out = traceOf(parts as never, ['l.inverted > f.in'], 'f.out', 1.2);
    expect(at(out, 0.499)).toBe(0);
    expect(at(out, 0.699)).toBeCloseTo(8 * (1 - Math.exp(-5)), 9);
    expect(at(out, 1.199)).toBeCloseTo(at(out, 0.999) * Math.exp(-2.5), 6);
    const gates = traceOf(parts as never, ['l.inverted > f.in'], 'f.gate', 1.2);
    expect([at(gates, 0.49), at(gates, 0.6)]).toEqual([0, 5]);
  });
});

describe('quantizer', () => {
  const q = (params: object, volts: number): number =>
    traceOf(
      { c: ['constant', { volts, lowVolts: -12, highVolts: 12 }], q: ['quantizer', params] } as never,
      ['c.out > q.in'],
      'q.out',
      0.01,
    )[5]!;
  it('rounds to the nearest note, ties upward', () => {
    expect(q({}, 0.51 / 12)).toBeCloseTo(1 / 12, 12);
    expect(q({}, 0.5 / 12)).toBeCloseTo(1 / 12, 12);
    expect(q({}, -0.5 / 12)).toBeCloseTo(0, 12);
    expect(q({ scale: 'major' }, 1 / 12)).toBeCloseTo(2 / 12, 12);
    expect(q({ scale: 'major', root: 1 }, 0)).toBeCloseTo(1 / 12 - 1 / 12, 12);
    expect(q({ scale: [0, 3.5], root: 0 }, 1.2)).toBeCloseTo(1 + 3.5 / 12, 12);
    expect(q({ scale: 'octaves' }, 0.6)).toBe(1);
    expect(q({ accepts: 'positive' }, -3)).toBe(0);
  });
  it('hysteresis keeps a note until that far past the middle', () => {
    const ramp = [
      'gesture',
      {
        points: [
          { t: 0, volts: 0 },
          { t: 1, volts: 1 / 12 },
        ],
      },
    ] as const;
    const x = traceOf({ g: ramp, q: ['quantizer', { hysteresisCents: 20 }] } as never, ['g.out > q.in'], 'q.out');
    expect(rises(x, 1 / 12)[0]).toBe(701);
  });
  it('with a trigger plugged it looks only at the edges, 0 V before', () => {
    const late = ['clock', { bpm: 300 }] as const;
    const x = traceOf(
      { c: level, k: late, d: ['divider'], q: ['quantizer'] } as never,
      ['c.out > q.in', 'k.out > d.in', 'd.out > q.trigger'],
      'q.out',
    );
    expect([at(x, 0), at(x, 0.3)]).toEqual([3, 3]);
  });
});

describe('loops of gates', () => {
  it('a module hears another’s value of the same sample', () => {
    const parts = { c: clock, s: ['sequencer', { steps: [{ volts: 1 }, { volts: 2 }] }], h: ['sampleHold'] } as never;
    expect(at(traceOf(parts, ['c.out > s.clock', 's.cv > h.in', 'c.out > h.clock'], 'h.out'), 0.1)).toBe(2);
  });
});
