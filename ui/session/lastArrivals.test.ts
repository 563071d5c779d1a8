import { describe, expect, it } from 'vitest';
import { BoundsEngine, buildGraph, glance, parsePatch, predict } from '@/core';
import type { Patch } from '@/core';
import { readingMore, readingText } from '@/ui/parts/readingText';
import { arrivalsIn, withArrivals } from './lastArrivals';

function lagged(cutoffHz: number): Patch {
  const parsed = parsePatch({
    format: 'fenvo.patch',
    version: 1,
    settings: { duration: 8 },
    modules: [
      { id: 'a', kind: 'lfo', params: { shape: 'sine' } },
      { id: 'lag', kind: 'slew', params: { law: 'rc', rise: 1, fall: 1 } },
      { id: 'x', kind: 'filter', params: { cutoffHz } },
      { id: 'y', kind: 'filter' },
    ],
    cables: [
      { from: 'a.out', to: 'lag.in' },
      { from: 'lag.out', to: 'x.cutoff' },
      { from: 'a.out', to: 'y.cutoff' },
    ],
  });
  if (!parsed.ok) throw new Error(parsed.errors[0]?.message);
  return parsed.value;
}

const still = (patch: Patch) => {
  const graph = buildGraph(patch);
  return glance(graph, new BoundsEngine().run(graph));
};

describe('what arrives while a knob turns', () => {
  it('stands as the last run told it, and bounds are those of now', () => {
    const last = arrivalsIn(predict(lagged(500)));
    const now = withArrivals(still(lagged(600)), last);
    const [behind, straight] = ['x.cutoff', 'y.cutoff'].map((at) => now.readings.find((r) => r.at === at)!);
    expect(behind!.arrivesBy).toBe('settled');
    expect(behind!.arrivesHigh!).toBeLessThan(behind!.high! / 2);
    expect(behind!.high).toBeCloseTo(600 * 32, 6);
    expect(straight).toMatchObject({ arrivesBy: 'bound', arrivesHigh: straight!.high });
    expect(now.outputs['lag.out']!.arrives[1]).toBeLessThan(4);
    expect(now.outputs['lag.out']!.bound).toEqual([-5, 5]);
  });

  it('is told first, with the guaranteed range beside it where that differs', () => {
    const { readings } = predict(lagged(500));
    const [behind, straight] = ['x.cutoff', 'y.cutoff'].map((at) => readings.find((r) => r.at === at)!);
    expect(readingText(behind!)).not.toContain('16.0');
    expect(readingMore(behind!)[0]).toMatch(/^guaranteed range 16\.0\u00a0Hz to 16\.0\u00a0kHz$/);
    expect(readingMore(straight!).join()).not.toContain('guaranteed');
  });
});
