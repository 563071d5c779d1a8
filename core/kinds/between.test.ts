import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { predict } from '../answers/predict';
import { simulate } from '../simulate/simulate';

/** The settled output of one stage fed with steady voltages. */
function steady(kind: string, params: object, inputs: Record<string, number>, output = 'out'): number {
  const parts = Object.fromEntries(
    Object.entries(inputs).map(([name, volts]) => [
      `c-${name.toLowerCase()}`,
      ['constant', { volts, lowVolts: -12, highVolts: 12 }],
    ]),
  );
  const cables = Object.keys(inputs).map((name) => `c-${name.toLowerCase()}.out > m.${name}`);
  const patch = patchOf({ ...(parts as Record<string, never>), m: [kind, params as never] }, cables, {
    duration: 0.01,
  });
  const { outputs } = predict(patch);
  const { bound, seen } = outputs[`m.${output}`]!;
  // Without memory and with steady inputs, bound and seen are the one value.
  expect(bound[0]).toBeCloseTo(seen![1], 9);
  expect(bound[1]).toBeCloseTo(seen![0], 9);
  return seen![0];
}

describe('scaling and shifting', () => {
  it('attenuator, attenuverter, inverter', () => {
    expect(steady('attenuator', { amount: 0.4 }, { in: 5 })).toBeCloseTo(2, 12);
    expect(steady('attenuverter', { amount: -1.5, maxAmount: 2 }, { in: 4 })).toBeCloseTo(-6, 12);
    expect(steady('attenuverter', { amount: 0.5, normalVolts: 5 }, {})).toBeCloseTo(2.5, 12);
    expect(steady('inverter', {}, { in: 3 })).toBe(-3);
  });
  it('offset, in both orders', () => {
    expect(steady('offset', { amount: 0.5, volts: 2 }, { in: 4 })).toBe(4);
    expect(steady('offset', { amount: 0.5, volts: 2, order: 'shiftThenScale' }, { in: 4 })).toBe(3);
  });
  it('an output saturates at the rails', () => {
    expect(steady('offset', { amount: 4, maxAmount: 4 }, { in: 5 })).toBe(12);
  });
});

describe('mixer', () => {
  it('sums, averages over what is in use, biases, inverts', () => {
    const inputs = { in1: 4, in2: -1 };
    expect(steady('mixer', { gain1: 0.5 }, inputs)).toBe(1);
    expect(steady('mixer', { law: 'average' }, inputs)).toBe(1.5);
    expect(steady('mixer', { biasVolts: 1, inverting: true }, inputs)).toBe(-4);
    expect(steady('mixer', { biasVolts: 1 }, inputs, 'inverted')).toBe(-4);
  });
});

describe('vca', () => {
  it('two quadrants: linear, shut below zero, limited to maxGain', () => {
    expect(steady('vca', {}, { in: 4, cv: 2.5 })).toBe(2);
    expect(steady('vca', {}, { in: 4, cv: -1 })).toBe(0);
    expect(steady('vca', { maxGain: 1.5 }, { in: 4, cv: 12 })).toBe(6);
  });
  it('exponential: (e^(kx) − 1)/(e^k − 1), k = ln 1000; blended by response', () => {
    const e = (1000 ** 0.5 - 1) / 999;
    expect(steady('vca', { response: 1 }, { in: 4, cv: 2.5 })).toBeCloseTo(4 * e, 12);
    expect(steady('vca', { response: 0.25 }, { in: 4, cv: 2.5 })).toBeCloseTo(4 * (0.75 * 0.5 + 0.25 * e), 12);
    expect(steady('vca', { response: 1, quadrants: 4 }, { in: 4, cv: -2.5 })).toBeCloseTo(-4 * e, 12);
  });
  it('control, boost, bleed, chain and soft limit add as the law says', () => {
    expect(steady('vca', { cvAmount: 0.5, bias: 1 }, { in: 5, cv: 4, cv2: 1 })).toBeCloseTo(4, 12);
    expect(steady('vca', { boostDb: 6 }, { in: 2, cv: 5 })).toBeCloseTo(2 * 10 ** 0.3, 12);
    expect(steady('vca', { bleed: 0.05, bleedTrim: -0.02 }, { in: 0, cv: 5, chain: 1 })).toBeCloseTo(1.15, 12);
    expect(steady('vca', { limitVolts: 3 }, { in: 5, cv: 5 })).toBeCloseTo(3 * Math.tanh(5 / 3), 12);
  });
  it('AC coupling takes the constant part away, slowly', () => {
    const patch = patchOf(
      {
        c: ['constant', { volts: 4 }],
        l: ['lfo', { shape: 'pulse', lowVolts: 0, highVolts: 4 }],
        m: ['vca', { coupling: 'ac', bias: 5 }],
      },
      ['l.out > m.in'],
      { duration: 0.6, sampleRate: 8000 },
    );
    const x = simulate(patch, { traces: ['m.out'] }).traces.get('m.out')!;
    // Starts at its first input, so 0; after the fall at 0.5 s it is −4 and decays at 2 Hz.
    expect(x[0]).toBe(0);
    expect(x[4000]).toBeCloseTo(-4, 9);
    expect(x[4400]).toBeCloseTo(-4 * Math.exp(-2 * Math.PI * 2 * 0.05), 9);
  });
});

describe('slew', () => {
  const run = (params: object): Float64Array => {
    const patch = patchOf(
      {
        l: ['lfo', { shape: 'pulse', rateHz: 1, phase: 0.5, lowVolts: 0, highVolts: 5 }],
        m: ['slew', params as never],
      },
      ['l.out > m.in'],
      { duration: 2, sampleRate: 8000 },
    );
    return simulate(patch, { traces: ['m.out'] }).traces.get('m.out')!;
  };
  it('linear: 10/T volts a second, the first step at the edge', () => {
    const x = run({ rise: 2, fall: 0 });
    expect(x[3999]).toBe(0);
    expect(x[4000]).toBeCloseTo(5 / 8000, 12);
    expect(x[5999]).toBeCloseTo(1.25, 9);
    expect(x[8000]).toBe(0);
  });
  it('rc: 99.3% of the way after its time', () => {
    const x = run({ law: 'rc', rise: 0.2 });
    expect(x[4000 + 1599]).toBeCloseTo(5 * (1 - Math.exp(-5)), 9);
  });
  it('starts at its first input, and a minimum holds for both ways', () => {
    const patch = patchOf({ c: ['constant', { volts: 3 }], m: ['slew', { minimum: 1 }] }, ['c.out > m.in'], {
      duration: 0.01,
    });
    expect(simulate(patch).outputs.get('m.out')).toMatchObject({ min: 3, max: 3 });
    expect(run({ minimum: 1 })[4799]).toBeCloseTo(1, 9);
  });
});

describe('filter', () => {
  it('its lowpass settles at the input, and at the cutoff its gain is 1/(2R)', () => {
    expect(
      simulate(patchOf({ c: ['constant', { volts: 3 }], m: ['filter'] }, ['c.out > m.in'], { duration: 0.5 }), {
        traces: ['m.lowpass'],
      })
        .traces.get('m.lowpass')!
        .at(-1),
    ).toBeCloseTo(3, 6);
    const sine = patchOf(
      { o: ['oscillator', { baseHz: 1000 }], m: ['filter', { resonance: 0.6 }] },
      ['o.sine > m.in'],
      { duration: 1 },
    );
    const { traces } = simulate(sine, { traces: ['m.lowpass', 'm.bandpass'] });
    const top = (x: Float64Array): number => Math.max(...x.slice(-4800));
    expect(top(traces.get('m.lowpass')!)).toBeCloseTo(5 / (2 * (1 - 0.995 * 0.6)), 1);
    expect(top(traces.get('m.bandpass')!)).toBeCloseTo(5, 1);
  });
  it('reads its cutoff in Hz, all inputs together', () => {
    const patch = patchOf(
      {
        c: ['constant', { volts: 2 }],
        d: ['constant', { volts: 1 }],
        m: ['filter', { cutoffHz: 200, cutoff2Amount: -1 }],
      },
      ['c.out > m.cutoff', 'd.out > m.cutoff2'],
      { duration: 0.01 },
    );
    expect(predict(patch).readings[0]).toMatchObject({
      at: 'm.cutoff',
      quantity: 'frequency',
      unit: 'Hz',
      low: 400,
      high: 400,
    });
  });
});

describe('parameter', () => {
  it('adds its own knob and its voltages, and says how long it is pinned', () => {
    const patch = patchOf(
      { l: ['lfo', { rateHz: 1 }], m: ['parameter', { knob: 0.75, low: 0, high: 100, unit: '%' }] },
      ['l.out > m.cv'],
      { duration: 1 },
    );
    const [reading] = predict(patch).readings;
    expect(reading).toMatchObject({ at: 'm.cv', unit: '%', low: 0, high: 100 });
    // The triangle is above +1.25 V for 3/8 of the time, below −3.75 V for 1/8.
    expect(reading!.pinnedHighPercent).toBeCloseTo(37.5, 1);
    expect(reading!.pinnedLowPercent).toBeCloseTo(12.5, 1);
  });
  it('a logarithmic taper is low·(high/low)^p', () => {
    const patch = patchOf(
      { m: ['parameter', { knob: 0.5, low: 20, high: 2000, unit: 'Hz', taper: 'logarithmic' }] },
      [],
      { duration: 0.01 },
    );
    const [reading] = predict(patch).readings;
    expect([reading!.low, reading!.high]).toEqual([200, 200]);
  });
});
