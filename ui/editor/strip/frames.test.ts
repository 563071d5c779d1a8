import { describe, expect, it } from 'vitest';
import { buildGraph, endsOf } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { predictedAt } from '@/ui/session/predictedAt';
import type { Predicted } from '@/ui/session/usePrediction';
import { endView, frameViews, joiningViews, shareOf } from './frames';

function predicted(patch: Parameters<typeof buildGraph>[0]): Predicted {
  const graph = buildGraph(patch);
  return predictedAt(graph, endsOf(graph)[0]);
}

describe('what the frames show', () => {
  it('bounds of each stage, and at the destination all that counts together', () => {
    const p = predicted(
      patchOf({ l: ['lfo'], o: ['offset', { amount: 0.4, volts: 2 }], f: ['filter', { cutoffHz: 212 }] }, [
        'l.out > o.in',
        'o.out > f.cutoff',
      ]),
    );
    expect(frameViews(p.strip!, p).map((v) => v.bound)).toEqual([
      [-5, 5],
      [0, 4],
      [0, 4],
    ]);
    expect(endView(p.strip!, p).window![0]).toBeCloseTo(Math.log2(16 / 212), 9);
  });
  it('what is lost: clipped at the rails, and below zero at an amplifier', () => {
    const p = predicted(
      patchOf({ l: ['lfo'], o: ['offset', { amount: 3, maxAmount: 4 }], a: ['vca'] }, ['l.out > o.in', 'o.out > a.cv']),
    );
    const [, boost, amp] = frameViews(p.strip!, p);
    expect(boost!.bound).toEqual([-12, 12]);
    expect(boost!.lost.map((l) => l.range)).toEqual([
      [-15, -12],
      [12, 15],
    ]);
    expect(amp!.lost.map((l) => l.range)).toEqual([
      [-12, 0],
      [5, 12],
    ]);
  });
  it('where else a stage goes, and what joins', () => {
    const p = predicted(
      patchOf({ l: ['lfo'], k: ['lfo'], m: ['mixer'], f: ['filter'], g: ['parameter'] }, [
        'l.out > m.in1',
        'k.out > m.in2',
        'm.out > f.cutoff',
        'l.out > g.cv',
      ]),
    );
    expect(frameViews(p.strip!, p)[0]!.forks).toEqual(['Custom destination CV']);
    expect(p.strip!.joinings.map((j) => joiningViews(j, p).map((v) => v.id))).toEqual([['k']]);
  });
  it('a wanted range in the end’s own unit stands at its volts', () => {
    const targets = [{ at: 'f.cutoff', quantity: 'frequency', low: 200, high: 3200 }];
    const p = predicted(
      patchOf({ l: ['lfo'], f: ['filter', { cutoffHz: 200 }] }, ['l.out > f.cutoff'], {}, { targets }),
    );
    expect(endView(p.strip!, p).wanted).toEqual([expect.closeTo(0, 6), expect.closeTo(4, 6)]);
    const { spec, params } = endView(p.strip!, p);
    expect(shareOf(spec, params, -99)).toBe(0);
    expect(shareOf(spec, params, 99)).toBe(1);
  });
});
