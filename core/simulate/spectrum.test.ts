import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { buildGraph } from '../graph/graph';
import { predict } from '../answers/predict';
import { simulate } from './simulate';
import { productLines } from '../answers/products';
import { spectrumOf } from './spectrum';

const spectrum = (patch: ReturnType<typeof patchOf>, socket: string) => {
  const { traces, sampleRate } = simulate(patch, { traces: [socket] });
  return spectrumOf(traces.get(socket)!, sampleRate);
};

describe('spectrum', () => {
  it('finds a sine at its frequency, with its amplitude and note', () => {
    const [peak] = spectrum(
      patchOf({ o: ['oscillator', { baseHz: 441.3, lowVolts: -3, highVolts: 3 }] }, [], { duration: 2 }),
      'o.sine',
    ).peaks;
    expect(peak!.hz).toBeCloseTo(441.3, 1);
    expect(Math.abs(peak!.volts / 3 - 1)).toBeLessThan(0.001);
    expect(peak!.note).toBe('A4');
    expect(peak!.cents).toBeCloseTo(1200 * Math.log2(441.3 / 440), 0);
  });
  it('a lone sine reads its amplitude wherever it falls between bins', () => {
    const bin = 48_000 / 65_536;
    for (const share of [0, 0.1, 0.25, 0.4, 0.5, 0.6, 0.85]) {
      const hz = (700 + share) * bin;
      const patch = patchOf({ o: ['oscillator', { baseHz: hz, lowVolts: -4, highVolts: 4 }] }, [], { duration: 2 });
      const [peak] = spectrum(patch, 'o.sine').peaks;
      expect([share, Math.abs(peak!.volts / 4 - 1) < 0.001, Math.abs(peak!.hz - hz) < 0.02 * bin]).toEqual([
        share,
        true,
        true,
      ]);
    }
  });
  it.each([
    ['polarizer', { modulation: 1 }, 'in', 'cv'],
    ['vca', { quadrants: 4 }, 'in', 'cv'],
    ['vca', { quadrants: 4 }, 'in2', 'cv2'],
  ])('finds the product of a %s %j too, also through a stage that scales', (kind, params, a, b) => {
    const patch = patchOf(
      {
        x: ['oscillator', { baseHz: 900 }],
        y: ['oscillator', { baseHz: 250 }],
        k: ['attenuverter', { amount: 0.5 }],
        m: [kind, params],
      } as never,
      [`x.sine > m.${a}`, 'y.sine > k.in', `k.out > m.${b}`],
      { duration: 2 },
    );
    const lines = productLines(buildGraph(patch), 'm.out', predict(patch).readings, spectrum(patch, 'm.out'));
    expect(lines.map((l) => [l.is, l.measuredHz === null ? null : Math.round(l.measuredHz)])).toEqual([
      ['difference', 650],
      ['sum', 1150],
    ]);
  });
  it('a saw’s harmonics fall as 1/n', () => {
    const { peaks } = spectrum(patchOf({ o: ['oscillator', { baseHz: 200 }] }, [], { duration: 2 }), 'o.saw');
    expect(peaks.slice(0, 4).map((p) => Math.round(p.hz))).toEqual([200, 400, 600, 800]);
    expect(peaks[3]!.volts / peaks[0]!.volts).toBeCloseTo(0.25, 2);
  });
  it('the product of two sines stands at their sum and difference', () => {
    const patch = patchOf(
      { a: ['oscillator', { baseHz: 1000 }], b: ['oscillator', { baseHz: 300 }], r: ['ringMod'] },
      ['a.sine > r.a', 'b.sine > r.b'],
      { duration: 2 },
    );
    const found = spectrum(patch, 'r.out');
    expect(
      found.peaks
        .slice(0, 2)
        .map((p) => Math.round(p.hz))
        .sort(),
    ).toEqual([1300, 700]);
    const lines = productLines(buildGraph(patch), 'r.out', predict(patch).readings, found);
    expect(lines).toEqual([
      { is: 'difference', predictedHz: 700, measuredHz: expect.closeTo(700, 1) },
      { is: 'sum', predictedHz: 1300, measuredHz: expect.closeTo(1300, 1) },
    ]);
  });
});
