import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { predict } from '../answers/predict';
import { simulate } from '../simulate/simulate';

const volts = (v: number) => ['constant', { volts: v, lowVolts: -12, highVolts: 12 }] as const;

/** An output fed with steady voltages. */
function steady(
  kind: string,
  params: object,
  inputs: Record<string, number>,
  output = 'out',
  settings: object = {},
): number {
  const names = Object.keys(inputs);
  const parts = Object.fromEntries(names.map((n) => [`c-${n.toLowerCase()}`, volts(inputs[n]!)]));
  const patch = patchOf(
    { ...(parts as Record<string, never>), m: [kind, params as never] },
    names.map((n) => `c-${n.toLowerCase()}.out > m.${n}`),
    { duration: 0.01, ...settings },
  );
  const { bound, seen } = predict(patch).outputs[`m.${output}`]!;
  expect(seen![0]).toBeGreaterThanOrEqual(bound[0] - 1e-9);
  expect(seen![1]).toBeLessThanOrEqual(bound[1] + 1e-9);
  return seen![1];
}

describe('multiplying', () => {
  it('ring modulator: a·b/scale and what bleeds', () => {
    expect(steady('ringMod', { coupling: 'dc', bleedA: 0.1, trimA: -0.04, bleedB: 0.02 }, { a: -3, b: 4 })).toBeCloseTo(
      -12 / 5 + 0.06 * -3 + 0.02 * 4,
      12,
    );
    expect(steady('ringMod', {}, { a: -3, b: 4 })).toBe(0);
  });
  it('polarizer: bias is normalled to 5 V; clips before and after', () => {
    expect(steady('polarizer', { gain: 2, biasAmount: 0.2 }, { in: 1 })).toBe(3);
    expect(steady('polarizer', { gain: 2, modulation: 0.5 }, { in: 2, cv: -2.5 })).toBeCloseTo(2 - 1, 12);
    expect(steady('polarizer', { gain: 4, clipVolts: 3 }, { in: 2, chain: 1 })).toBe(3);
    const g = (1000 ** 0.4 - 1) / 999;
    expect(steady('polarizer', { modulation: 1, curve: 1 }, { in: 4, cv: 2 })).toBeCloseTo(4 * g, 12);
  });
  it('crossfade: linear and equal power', () => {
    const inputs = { in: 4, in2: 2, cv: -2 };
    expect(steady('crossfade', {}, inputs)).toBeCloseTo(3, 12);
    expect(steady('crossfade', { cvAmount: 1 }, inputs)).toBeCloseTo(4 * 0.7 + 2 * 0.3, 12);
    const [ka, kb] = [Math.cos((Math.PI / 2) * 0.3), Math.sin((Math.PI / 2) * 0.3)];
    expect(steady('crossfade', { cvAmount: 1, law: 'equalPower' }, inputs)).toBeCloseTo(4 * ka + 2 * kb, 12);
    expect(steady('crossfade', { cvAmount: 1, law: 'equalPower' }, inputs, 'a')).toBeCloseTo(4 * ka, 12);
    expect(steady('crossfade', { cvAmount: 1, law: 'equalPower' }, inputs, 'b')).toBeCloseTo(4 * kb, 12);
  });
});

describe('bending', () => {
  it('rectifier', () => {
    expect([
      steady('rectifier', {}, { in: -3 }),
      steady('rectifier', { mode: 'positive' }, { in: -3 }),
      steady('rectifier', { mode: 'negative' }, { in: -3 }),
    ]).toEqual([3, 0, -3]);
  });
  it('shaper folds back, then clips hard or softly', () => {
    expect(steady('shaper', { gain: 2, clipVolts: 4 }, { in: 3, bias: -1 })).toBe(4);
    expect(steady('shaper', { gain: 2, clipVolts: 4, folds: 1 }, { in: 3 })).toBe(2);
    expect(steady('shaper', { gain: 5, clipVolts: 2, folds: 2 }, { in: 1.2 })).toBeCloseTo(-2, 12);
    expect(steady('shaper', { clipVolts: 4, knee: 'soft' }, { in: 4 })).toBeCloseTo(4 * Math.tanh(1), 12);
  });
});

describe('passing on', () => {
  it('mult copies, a line input lifts by its gain', () => {
    expect(steady('mult', {}, { in: 3 }, 'out3')).toBe(3);
    expect(steady('lineIn', { gainDb: 20 }, { in: 0.5 })).toBeCloseTo(5, 12);
  });
  it('a junction is the node of its sources; a passive pot at zero drags it down', () => {
    const out = (params: object, settings: object = {}): number => {
      const parts = {
        a: ['constant', { volts: 4 }, { outputOhms: { out: 1000 } }],
        b: ['constant', { volts: 1 }, { outputOhms: { out: 3000 } }],
        p: ['attenuator', { build: 'passive', amount: 0, ...params }],
        j: ['junction'],
        v: ['vca'],
      } as never;
      const patch = patchOf(parts, ['a.out > j.in1', 'b.out > j.in2', 'p.out > j.in3', 'j.out > v.cv'], {
        duration: 0.01,
        ...settings,
      });
      return predict(patch).outputs['j.out']!.seen![1];
    };
    const node = (third: number): number => (4 / 1000 + 1 / 3000) / (1 / 1000 + 1 / 3000 + third + 1 / 100000);
    expect(out({})).toBeCloseTo(node(1), 9);
    // At half way the pot shows 50k beside 50k to ground.
    expect(out({ amount: 0.5 })).toBeCloseTo(node(1 / 25000), 9);
    expect(out({}, { loading: 'ideal' })).toBeCloseTo(5 / 3, 12);
  });
  it('a tied output answers its own voltage', () => {
    const parts = {
      a: ['constant', { volts: 4 }, { outputOhms: { out: 1000 } }],
      b: ['constant', { volts: 1 }],
      j: ['junction'],
    } as never;
    const { outputs } = predict(patchOf(parts, ['a.out > j.in1', 'b.out > j.in2'], { duration: 0.01 }));
    expect(outputs['a.out']!.seen![1]).toBe(4);
  });
});

describe('delay', () => {
  const run = (params: object, seconds = 0.5): Float64Array => {
    const click = [
      'gesture',
      {
        points: [
          { t: 0, volts: 5 },
          { t: 0.001, volts: 0 },
        ],
        interpolation: 'hold',
      },
    ];
    const patch = patchOf({ g: click as never, d: ['delay', params as never] }, ['g.out > d.in'], {
      duration: seconds,
      sampleRate: 8000,
    });
    return simulate(patch, { traces: ['d.out'] }).traces.get('d.out')!;
  };
  it('repeats later, each time times the feedback', () => {
    const x = run({ seconds: 0.1, feedbackAmount: 0.5, mix: 0.5 });
    expect([0, 800, 1600, 2400].map((k) => x[k])).toEqual([2.5, 2.5, 1.25, 0.625]);
    expect(x[799]).toBe(0);
  });
  it('between samples it interpolates', () => {
    const x = run({ seconds: 0.1 + 0.25 / 8000, feedbackAmount: 0, mix: 1 });
    expect([x[800], x[801]]).toEqual([expect.closeTo(3.75, 9), 5]);
  });
  it('without feedback it stays in its input’s hull with 0 V, with feedback at the rails', () => {
    const bound = (params: object) =>
      predict(
        patchOf({ l: ['lfo', { lowVolts: 1, highVolts: 3 }], d: ['delay', params as never] }, ['l.out > d.in'], {
          duration: 0.01,
        }),
      ).outputs['d.out']!.bound;
    expect(bound({ feedbackAmount: 0, mix: 0.5 })).toEqual([0.5, 3]);
    expect(bound({ mix: 1 })).toEqual([-12, 12]);
  });
});

describe('low-pass gate', () => {
  it('is shut at 0 V; open it passes what is slow', () => {
    expect(steady('lowPassGate', {}, { in: 5, cv: 0 })).toBe(0);
    const patch = patchOf({ i: volts(3), c: volts(5), m: ['lowPassGate'] }, ['i.out > m.in', 'c.out > m.cv'], {
      duration: 0.2,
    });
    expect(
      simulate(patch, { traces: ['m.out'] })
        .traces.get('m.out')!
        .at(-1),
    ).toBeCloseTo(3, 6);
  });
});

describe('noise and recordings', () => {
  it.each(['white', 'pink', 'red'])(
    '%s noise: 99.9%% lies within its peak, and the seed alone decides it',
    (colour) => {
      const patch = patchOf({ n: ['noise', { colour, peakVolts: 4 }] }, [], { duration: 4 });
      const x = simulate(patch, { traces: ['n.out'] }).traces.get('n.out')!;
      expect(Math.max(...x.subarray(0, 100_000).map(Math.abs))).toBeLessThanOrEqual(4);
      if (colour !== 'white') expect(x.filter((v) => Math.abs(v) >= 4).length / x.length).toBeLessThan(0.004);
      expect(simulate(patch, { traces: ['n.out'] }).traces.get('n.out')).toEqual(x);
      const other = { ...patch, settings: { ...patch.settings, seed: 2 } };
      expect(simulate(other, { traces: ['n.out'] }).traces.get('n.out')).not.toEqual(x);
    },
  );
  it('a recording is resampled to the patch’s rate, 0 V after its end, or looped', () => {
    const asset = () => ({ sampleRate: 4000, volts: Float64Array.of(0, 1, 2, 3) });
    const run = (loop: boolean) =>
      simulate(
        patchOf({ r: ['recording', { assetId: 'a', gain: 2, loop }] }, [], { duration: 0.01, sampleRate: 8000 }),
        { asset, traces: ['r.out'] },
      ).traces.get('r.out')!;
    expect([...run(false).slice(0, 10)]).toEqual([0, 1, 2, 3, 4, 5, 6, 3, 0, 0]);
    expect([...run(true).slice(6, 10)]).toEqual([6, 3, 0, 1]);
  });
});

describe('line output', () => {
  it('reads in dBu RMS after its pad', () => {
    const patch = patchOf({ o: ['oscillator', { baseHz: 1000 }], x: ['lineOut', { padDb: 10 }] }, ['o.sine > x.left'], {
      duration: 1,
    });
    const r = predict(patch).readings.find((x) => x.at === 'x.left')!;
    const dbu = 20 * Math.log10(5 / Math.SQRT2 / 0.7746) - 10;
    expect(r).toMatchObject({ quantity: 'level', unit: 'dBu' });
    expect([r.low, r.high, r.seenLow, r.seenHigh].map((x) => (x ?? NaN) - dbu)).toEqual(
      Array(4).fill(expect.closeTo(0, 3)),
    );
    expect(r.peakHigh).toBeCloseTo(20 * Math.log10(5 / 0.7746) - 10, 6);
    expect(r.overStudioDb).toBeCloseTo(dbu - 4, 3);
    // −10 dBV is 0.3162 V RMS.
    expect(r.overHomeDb).toBeCloseTo(20 * Math.log10(5 / Math.SQRT2 / 10 ** -0.5) - 10, 3);
    expect(r).not.toHaveProperty('mean');
    expect(r).not.toHaveProperty('silent');
  });
});
