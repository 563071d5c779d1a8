import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { simulate } from '../simulate/simulate';
import { draw, seedOf } from './random';

const rate = 8000;

function trace(
  params: Record<string, never> | object,
  kind: string,
  output = 'out',
  seconds = 2,
  more: { parts?: object; cables?: string[] } = {},
): Float64Array {
  const patch = patchOf({ m: [kind, params as never], ...(more.parts as Record<string, never>) }, more.cables, {
    duration: seconds,
    sampleRate: rate,
  });
  return simulate(patch, { traces: [`m.${output}`] }).traces.get(`m.${output}`)!;
}

const at = (x: Float64Array, seconds: number): number => x[Math.round(seconds * rate)]!;

describe('lfo', () => {
  it('a triangle rises through its middle at 0, tops at a quarter, bottoms at three quarters', () => {
    const x = trace({ rateHz: 1, lowVolts: -2, highVolts: 6 }, 'lfo');
    expect([at(x, 0), at(x, 0.25), at(x, 0.5), at(x, 0.75), at(x, 0.125)]).toEqual([2, 6, 2, -2, 4]);
  });
  it('a sine is mid + half·sin 2πφ, its quadrature the cosine, inverted its negative', () => {
    for (const t of [0, 0.1, 0.3, 0.77]) {
      expect(at(trace({ shape: 'sine' }, 'lfo'), t)).toBeCloseTo(5 * Math.sin(2 * Math.PI * t), 9);
      expect(at(trace({ shape: 'sine' }, 'lfo', 'quadrature'), t)).toBeCloseTo(5 * Math.cos(2 * Math.PI * t), 9);
      expect(at(trace({ shape: 'sine' }, 'lfo', 'inverted'), t)).toBeCloseTo(-5 * Math.sin(2 * Math.PI * t), 9);
    }
  });
  it('a pulse is high for exactly its width, in every cycle', () => {
    const x = trace({ shape: 'pulse', rateHz: 10, width: 0.3 }, 'lfo');
    const high = Array.from({ length: 20 }, (_, n) => x.slice(n * 800, (n + 1) * 800).filter((v) => v === 5).length);
    expect(new Set(high)).toEqual(new Set([240]));
  });
  it('stepped draws once a cycle, smooth runs through the draws by a cosine', () => {
    const seed = seedOf(1, 'm');
    const stepped = trace({ shape: 'stepped', rateHz: 4 }, 'lfo');
    expect([0, 1, 2].map((n) => at(stepped, n / 4 + 0.1))).toEqual([0, 1, 2].map((n) => 5 * draw(seed, n)));
    const smooth = trace({ shape: 'smooth', rateHz: 4 }, 'lfo');
    expect(at(smooth, 0.5)).toBeCloseTo(5 * draw(seed, 2), 9);
    expect(at(smooth, 0.625)).toBeCloseTo((5 * (draw(seed, 2) + draw(seed, 3))) / 2, 9);
  });
  it('one volt at rate doubles the frequency', () => {
    const more = { parts: { c: ['constant', { volts: 1 }] }, cables: ['c.out > m.rate'] };
    expect(at(trace({ shape: 'sine' }, 'lfo', 'out', 2, more), 0.1)).toBeCloseTo(5 * Math.sin(2 * Math.PI * 0.2), 9);
  });
  it('a rising reset sets its phase at that very sample', () => {
    const more = { parts: { c: ['clock', { bpm: 75 }] }, cables: ['c.out > m.reset'] };
    const x = trace({ shape: 'rampUp', rateHz: 1, phase: 0.25 }, 'lfo', 'out', 2, more);
    expect(at(x, 0.8)).toBe(-2.5);
    expect(x[Math.round(0.8 * rate) - 1]).toBeCloseTo(-4.50125, 9);
  });
  it('does not drift over 120 s', () => {
    const x = trace({ shape: 'pulse', rateHz: 0.1, width: 0.37 }, 'lfo', 'out', 120);
    expect([at(x, 110), x[110 * rate - 1], at(x, 113.7), x[Math.round(113.7 * rate) - 1]]).toEqual([5, -5, -5, 5]);
  });
});

describe('clock', () => {
  it('pulses every 60/bpm s from 0, high for its width', () => {
    const x = trace({ bpm: 90, width: 0.25 }, 'clock');
    const rises = [...x.keys()].filter((k) => x[k] === 5 && (k === 0 || x[k - 1] === 0));
    expect(rises).toEqual([0, 5334, 10667]);
    expect(x.filter((v) => v === 5).length / x.length).toBeCloseTo(0.25, 3);
  });
  it('with swing each second pulse starts at its share of the pair', () => {
    const x = trace({ bpm: 120, swing: 0.6 }, 'clock');
    const rises = [...x.keys()].filter((k) => x[k] === 5 && (k === 0 || x[k - 1] === 0));
    expect(rises).toEqual([0, 4800, 8000, 12800]);
  });
  it('a gate of 1 ms is 8 samples at 8 kHz, in every pulse', () => {
    const x = trace({ bpm: 600, width: 0.01 }, 'clock');
    expect(x.filter((v) => v === 5).length).toBe(20 * 8);
  });
  it('takes the tempo of the patch unless it has its own', () => {
    const patch = patchOf({ m: ['clock'] }, [], { bpm: 60, duration: 2, sampleRate: rate });
    const x = simulate(patch, { traces: ['m.out'] }).traces.get('m.out')!;
    expect([...x.keys()].filter((k) => k > 0 && x[k] === 5 && x[k - 1] === 0)).toEqual([8000]);
  });
});

describe('gesture and constant', () => {
  it('interpolates, holds its ends, and loops by its last time', () => {
    const points = [
      { t: 0.5, volts: 0 },
      { t: 1, volts: 4 },
    ];
    const x = trace({ points }, 'gesture');
    expect([at(x, 0), at(x, 0.75), at(x, 1.9)]).toEqual([0, 2, 4]);
    const looped = trace({ points, loop: true }, 'gesture');
    expect([at(looped, 0.75), at(looped, 1), at(looped, 1.75)]).toEqual([2, 0, 2]);
    expect(at(trace({ points, interpolation: 'hold' }, 'gesture'), 0.75)).toBe(0);
  });
  it('a constant stays', () => expect(new Set(trace({ volts: 1.5 }, 'constant'))).toEqual(new Set([1.5])));
});

describe('envelope', () => {
  const gate = { parts: { g: ['clock', { bpm: 60, width: 0.5 }] }, cables: ['g.out > m.gate'] };
  const y = (x: number, c: number): number => (1 - Math.exp(-5 * c * x)) / (1 - Math.exp(-5 * c));

  it('adsr: its stages move by y(x, c), from the present level', () => {
    const p = { attack: 0.1, decay: 0.2, release: 0.3, sustain: 0.5, attackCurve: 0.6, decayCurve: -0.4 };
    const x = trace(p, 'envelope', 'out', 1, gate);
    expect(at(x, 0)).toBe(0);
    expect(at(x, 0.05)).toBeCloseTo(8 * y(0.5, 0.6), 9);
    expect(at(x, 0.1)).toBeCloseTo(8, 9);
    expect(at(x, 0.2)).toBeCloseTo(8 - 4 * y(0.5, -0.4), 9);
    expect(at(x, 0.4)).toBeCloseTo(4, 9);
    expect(at(x, 0.65)).toBeCloseTo(4 * (1 - y(0.5, -0.4)), 9);
    expect(at(x, 0.85)).toBe(0);
  });
  it('ar holds at the peak; a gate that ends early releases from the level reached', () => {
    const x = trace({ mode: 'ar', attack: 1, release: 0.5, attackCurve: 0, decayCurve: 0 }, 'envelope', 'out', 1, gate);
    expect(at(x, 0.5)).toBeCloseTo(4, 9);
    expect(at(x, 0.75)).toBeCloseTo(2, 9);
  });
  it('a loop without a gate runs by itself, handing on what is left of a sample', () => {
    const x = trace(
      { mode: 'loop', attack: 0.10003, decay: 0.20004, attackCurve: 0, decayCurve: 0 },
      'envelope',
      'out',
      2,
    );
    const period = 0.30007;
    for (const t of [0.05, 0.29, 1.4, 1.9]) {
      const within = (Math.round(t * rate) / rate) % period;
      const expected = within < 0.10003 ? (8 * within) / 0.10003 : 8 * (1 - (within - 0.10003) / 0.20004);
      expect(at(x, t)).toBeCloseTo(expected, 6);
    }
  });
  it('followsLevel: a 5 V gate gives a 5 V contour', () => {
    const x = trace({ mode: 'ar', attack: 0.1, followsLevel: true }, 'envelope', 'out', 0.4, gate);
    expect(Math.max(...x)).toBeCloseTo(5, 9);
  });
  it('end is 5 V for 5 ms after the last stage', () => {
    const x = trace({ mode: 'ad', attack: 0.1, decay: 0.1 }, 'envelope', 'end', 0.5, gate);
    const high = [...x.keys()].filter((k) => x[k] === 5);
    expect([high[0], high.length]).toEqual([1600, 40]);
  });
});

describe('oscillator', () => {
  const run = (params: object, output: string, more: { parts?: object; cables?: string[] } = {}): Float64Array => {
    const patch = patchOf(
      { m: ['oscillator', params as never], ...(more.parts as Record<string, never>) },
      more.cables,
      { duration: 0.1, sampleRate: 48000 },
    );
    return simulate(patch, { traces: [`m.${output}`] }).traces.get(`m.${output}`)!;
  };
  it('is 1 V an octave from its base frequency', () => {
    const more = { parts: { c: ['constant', { volts: 2 }] }, cables: ['c.out > m.pitch'] };
    const x = run({ baseHz: 110 }, 'sine', more);
    for (const k of [1, 100, 4000]) expect(x[k]).toBeCloseTo(5 * Math.sin((2 * Math.PI * 440 * k) / 48000), 7);
  });
  it('saw and pulse are band-limited and stay within their range', () => {
    const saw = run({ baseHz: 3000 }, 'saw');
    expect(saw[0]).toBe(0); // The middle of the step.
    expect(saw[8]).toBeCloseTo(0, 9);
    const pulse = run({ baseHz: 3000, width: 0.25 }, 'pulse');
    expect(Math.max(...pulse.map(Math.abs), ...saw.map(Math.abs))).toBeLessThanOrEqual(5);
    expect(pulse[2]).toBe(5);
    expect(pulse[10]).toBe(-5);
  });
  it('linear modulation scales the frequency by 1 + amount·fm/5', () => {
    const more = { parts: { c: ['constant', { volts: 5 }] }, cables: ['c.out > m.fm'] };
    const x = run({ baseHz: 100, fmLaw: 'linear', fmAmount: 0.5 }, 'sine', more);
    expect(x[1000]).toBeCloseTo(5 * Math.sin((2 * Math.PI * 150 * 1000) / 48000), 7);
  });
});
