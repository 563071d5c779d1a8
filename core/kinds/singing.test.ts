import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import { buildGraph } from '../graph/graph';
import { simulateGraph } from '../simulate/simulate';
import { patchOf } from '../testing/patch';

/** Rises through 0 V, in samples with fractions. */
function risesOf(trace: Float64Array): number[] {
  const rises: number[] = [];
  for (let i = 1; i < trace.length; i++) {
    const [a, b] = [trace[i - 1]!, trace[i]!];
    if (a < 0 && b >= 0) rises.push(i - 1 + a / (a - b));
  }
  return rises;
}

function sung(resonance: number, cutoffHz: number, sampleRate = 48_000) {
  const patch = patchOf({ f: ['filter', { resonance, cutoffHz }] }, [], { duration: 2, sampleRate });
  const { traces } = simulateGraph(buildGraph(patch), { traces: ['f.bandpass'] });
  return traces.get('f.bandpass')!.subarray(sampleRate);
}

describe('a filter beyond resonance 1', () => {
  it.each([
    [1.1, 110],
    [1.1, 440],
    [1.2, 1000],
    [1.2, 4000],
    [1.02, 440],
  ])('at %f sings at its cutoff of %f Hz, within a tenth of a cent', (resonance, hertz) => {
    const rises = risesOf(sung(resonance, hertz));
    const measured = (48_000 * (rises.length - 1)) / (rises.at(-1)! - rises[0]!);
    expect(Math.abs(1200 * Math.log2(measured / hertz))).toBeLessThan(0.1);
  });
  it('as loud as its damping allows, and is silent at 1', () => {
    const most = (x: Float64Array): number => x.reduce((peak, v) => Math.max(peak, Math.abs(v)), 0);
    // v1² + v2² is steady where 2R is nothing.
    for (const resonance of [1.05, 1.2])
      expect(most(sung(resonance, 440))).toBeCloseTo(Math.sqrt((2 * (0.995 * resonance - 1)) / 0.0465), 2);
    expect(most(sung(1, 440))).toBe(0);
  });
  it('is a source: it needs no input, never repeats, and may reach the rails', () => {
    const patch = (resonance: number) =>
      patchOf({ f: ['filter', { resonance }], x: ['lineOut', { padDb: 20 }] }, ['f.lowpass > x.left'], {
        duration: 0.2,
      });
    const { outputs, findings } = predict(patch(1.1));
    expect(outputs['f.lowpass']).toMatchObject({ bound: [-12, 12], repeatsEvery: null });
    expect(findings.filter((f) => f.code === 'no-source')).toEqual([]);
    const still = predict(patch(0.9));
    expect(still.outputs['f.lowpass']!.bound).toEqual([0, 0]);
    expect(still.findings.filter((f) => f.code === 'no-source')).toHaveLength(1);
  });
});
