import { describe, expect, it } from 'vitest';
import { BoundsEngine, buildGraph } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { responsesOf } from './response';

const graph = buildGraph(
  patchOf(
    {
      slow: ['lfo', { lowVolts: 0, highVolts: 4 }],
      amp: ['vca', { response: 0 }],
      tone: ['filter', { cutoffHz: 200 }],
    },
    ['slow.out > amp.cv', 'slow.out > tone.cutoff'],
  ),
);
const bounds = new BoundsEngine().run(graph);
const responses = (id: string) =>
  responsesOf(
    graph.modules.find((m) => m.id === id)!,
    bounds.get(id),
  );

describe('a response', () => {
  it('of a linear amplifier is 20 dB a tenth, silent at the bottom, with what can arrive', () => {
    const [gain] = responses('amp');
    expect(gain).toMatchObject({ socket: 'cv', unit: 'dB', drive: [0, 4] });
    expect(gain!.points[0]).toMatchObject({ volts: 0, value: -80 });
    expect(gain!.points.at(-1)!.volts).toBe(5);
    expect(gain!.points.at(-1)!.value).toBeCloseTo(0, 9);
    const half = gain!.points.find((p) => Math.abs(p.volts - 2.5) < 0.01)!;
    expect(half.value).toBeCloseTo(-6.02, 2);
  });
  it('of a filter doubles with every volt', () => {
    const [cutoff] = responses('tone');
    const at = (volts: number) =>
      cutoff!.points.reduce((a, b) => (Math.abs(b.volts - volts) < Math.abs(a.volts - volts) ? b : a));
    const [a, b] = [at(0), at(2)];
    expect(Math.log2(b.value / a.value)).toBeCloseTo(b.volts - a.volts, 9);
  });
  it('is none where nothing responds', () => {
    expect(responses('slow').map((r) => r.socket)).toEqual(['rate']);
  });
});
