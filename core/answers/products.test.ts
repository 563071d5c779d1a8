import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { buildGraph } from '../graph/graph';
import { simulateGraph } from '../simulate/simulate';
import { spectrumOf } from '../simulate/spectrum';
import { patchOf } from '../testing/patch';
import { predict } from './predict';
import { productLines } from './products';

type Parts = Parameters<typeof patchOf>[0];

/** The lines of a product at an output, as they are predicted and found in half a second of it. */
function linesOf(parts: Parts, cables: readonly string[], socket: string) {
  const patch = patchOf(parts, cables, { duration: 0.5, sampleRate: 48_000 });
  const graph = buildGraph(patch);
  const { traces, sampleRate } = simulateGraph(graph, { traces: [socket], only: [socket] });
  const spectrum = spectrumOf(traces.get(socket)!, sampleRate);
  const lines = productLines(graph, socket, predict(patch, { simulation: false }).readings, spectrum);
  return { lines, binHz: spectrum.binHz };
}
const sine = (baseHz: number) => ['oscillator', { baseHz }] as const;
const ring = (a: number, b: number, more: Parts = {}): Parts => ({ a: sine(a), b: sine(b), r: ['ringMod'], ...more });
const plain = ['a.sine > r.a', 'b.sine > r.b'];

describe('the product of two sines', () => {
  it('stands at their sum and difference, and is found there', () => {
    const hertz = fc.double({ min: 200, max: 2500, noNaN: true });
    fc.assert(
      fc.property(hertz, hertz, (x, y) => {
        fc.pre(Math.abs(x - y) > 60);
        const { lines, binHz } = linesOf(ring(x, y), plain, 'r.out');
        expect(lines.map((l) => l.is)).toEqual(['difference', 'sum']);
        expect(lines[0]!.predictedHz).toBeCloseTo(Math.abs(x - y), 6);
        expect(lines[1]!.predictedHz).toBeCloseTo(x + y, 6);
        for (const { predictedHz, measuredHz } of lines)
          expect(Math.abs(measuredHz! - predictedHz)).toBeLessThanOrEqual(binHz / 2);
      }),
      { numRuns: 12 },
    );
  });
  it('is known through what only scales, lifts or copies them', () => {
    const through = ring(900, 250, { o: ['offset', { amount: -0.5, volts: 0.5 }], m: ['mult'] });
    const { lines } = linesOf(through, ['a.sine > o.in', 'o.out > r.a', 'b.sine > m.in', 'm.out2 > r.b'], 'r.out');
    expect(lines.map((l) => l.predictedHz)).toEqual([expect.closeTo(650, 6), expect.closeTo(1150, 6)]);
  });
  it('of an amplifier is that of its signal and its control', () => {
    const parts: Parts = { a: sine(700), l: ['lfo', { shape: 'sine', rateHz: 40, lowVolts: 0 }], v: ['vca'] };
    const { lines } = linesOf(parts, ['a.sine > v.in', 'l.out > v.cv'], 'v.out');
    expect(lines.map((l) => l.predictedHz)).toEqual([expect.closeTo(660, 6), expect.closeTo(740, 6)]);
  });
});

describe('no lines are told', () => {
  it.each([
    ['where one is no sine', ring(900, 250), ['a.saw > r.a', 'b.sine > r.b']],
    ['where one is bent on its way', ring(900, 250, { w: ['rectifier'] }), ['a.sine > w.in', 'w.out > r.a', plain[1]!]],
    ['where one does not keep its pitch', ring(900, 250, { l: ['lfo'] }), [...plain, 'l.out > b.pitch']],
    [
      'where two are mixed first',
      ring(900, 250, { m: ['mixer'] }),
      ['a.sine > m.in1', 'b.sine > m.in2', 'm.out > r.a', plain[1]!],
    ],
    ['where nothing is plugged in', ring(900, 250), [plain[0]!]],
  ] as const)('%s', (_, parts, cables) => {
    expect(linesOf(parts, cables, 'r.out').lines).toEqual([]);
  });
  it('at a stage that multiplies nothing', () => {
    expect(linesOf({ a: sine(440), o: ['offset'] }, ['a.sine > o.in'], 'o.out').lines).toEqual([]);
  });
});
