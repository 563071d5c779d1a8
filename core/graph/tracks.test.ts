import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Hand } from '../document/types';
import { patchOf } from '../testing/patch';
import { alike, sameDriver } from './alike';
import { buildGraph } from './graph';
import { handAt, isLinearIn, tracksOf } from './tracks';

const hand = (points: readonly (readonly [number, number])[], more: Partial<Hand> = {}): Hand => ({
  at: 'a.amount',
  points: points.map(([t, value]) => ({ t, value })),
  interpolation: 'linear',
  loop: false,
  ...more,
});
/** Points in thousandths, each later than the one before. */
const points = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 2000 }), fc.integer({ min: -1000, max: 1000 })), {
    minLength: 1,
    maxLength: 12,
  })
  .map((steps) => {
    let t = 0;
    return steps.map(([step, value], i) => [i === 0 ? 0 : (t += step / 1000), value / 1000] as const);
  });

describe('where a hand is', () => {
  it('is on the straight line between two points, and where it ended from then on', () => {
    fc.assert(
      fc.property(points, fc.integer({ min: 0, max: 1000 }), (list, share) => {
        const [h, end] = [hand(list), list.at(-1)![0]];
        list.slice(1).forEach(([t, v], i) => {
          const [from, was] = list[i]!;
          const at = from + (share / 1000) * (t - from);
          expect(handAt(h, at)).toBeCloseTo(was + (share / 1000) * (v - was), 9);
        });
        expect(handAt(h, end + 5)).toBe(list.at(-1)![1]);
      }),
    );
  });
  it('held is at the last point that has passed', () => {
    fc.assert(
      fc.property(points, (list) => {
        const h = hand(list, { interpolation: 'hold' });
        list.forEach(([t, v], i) => {
          expect(handAt(h, t)).toBe(v);
          const next = list[i + 1];
          if (next) expect(handAt(h, t + 0.99 * (next[0] - t))).toBe(v);
        });
      }),
    );
  });
  it('again and again is where it was a round before', () => {
    fc.assert(
      fc.property(points, fc.integer({ min: 1, max: 999 }), fc.integer({ min: 1, max: 9 }), (list, share, rounds) => {
        const period = list.at(-1)![0];
        fc.pre(period > 0);
        const [h, t] = [hand(list, { loop: true }), (share / 1000) * period];
        expect(handAt(h, t + rounds * period)).toBeCloseTo(handAt(h, t), 6);
      }),
    );
  });
  it('is the same read sample by sample as read anywhere, and within what is told of it', () => {
    const patch = patchOf({ a: ['attenuverter'], l: ['lfo'] }, ['l.out > a.in']);
    fc.assert(
      fc.property(points, fc.boolean(), (list, loop) => {
        const h = hand(list, { loop });
        const m = buildGraph({ ...patch, hands: [h] }).modules[0]!;
        const [track] = tracksOf(m, 100);
        expect(track).toMatchObject({ param: 'amount', lo: Math.min(...list.map((p) => p[1])) });
        for (let k = 0; k < 400; k++) {
          const value = track!.at(k);
          expect(value).toBe(handAt(h, k / 100));
          expect(value).toBeGreaterThanOrEqual(track!.lo - 1e-12);
          expect(value).toBeLessThanOrEqual(track!.hi + 1e-12);
        }
      }),
      { numRuns: 30 },
    );
  });
  it('moves a straight stage in a straight line; one that remembers, or is bent, not', () => {
    const graph = buildGraph(
      patchOf({ a: ['attenuverter'], s: ['slew'], w: ['rectifier'], l: ['lfo'] }, ['l.out > a.in', 'a.out > s.in']),
    );
    const linear = (id: string, param: string): boolean =>
      isLinearIn(
        graph.modules.find((m) => m.id === id)!,
        [{ param, lo: 0, hi: 1, at: () => 0 }],
      );
    expect(linear('a', 'amount')).toBe(true);
    expect([linear('a', 'other'), linear('s', 'rise'), linear('l', 'rateHz')]).toEqual([false, false, false]);
  });
});

describe('stages that answer alike', () => {
  const parts = (amount: number) =>
    buildGraph(patchOf({ l: ['lfo'], a: ['attenuverter', { amount }] }, ['l.out > a.in']));
  it('have the same settings, cables and hands, whoever drives them', () => {
    expect(alike(parts(0.5).modules[1]!, parts(0.5).modules[1]!)).toBe(true);
    expect(alike(parts(0.5).modules[1]!, parts(0.6).modules[1]!)).toBe(false);
    const free = buildGraph(patchOf({ l: ['lfo'], a: ['attenuverter', { amount: 0.5 }] }));
    expect(alike(parts(0.5).modules[1]!, free.modules[1]!)).toBe(false);
    expect(alike(parts(0.5).modules[0]!, parts(0.5).modules[1]!)).toBe(false);
    const turned = { ...parts(0.5).modules[1]!, hands: [hand([[0, 0.5]])] };
    expect(alike(parts(0.5).modules[1]!, turned)).toBe(false);
  });
  it('carry the same where one output or one voltage drives them', () => {
    const from = { type: 'output', module: 0, output: 1, delayed: false } as const;
    expect(sameDriver(from, { ...from })).toBe(true);
    for (const other of [
      { ...from, module: 1 },
      { ...from, output: 0 },
      { ...from, delayed: true },
    ])
      expect(sameDriver(from, other)).toBe(false);
    const volts = (v: number) => ({ type: 'volts', volts: v }) as const;
    expect([sameDriver(volts(5), volts(5)), sameDriver(volts(5), volts(4)), sameDriver(volts(5), from)]).toEqual([
      true,
      false,
      false,
    ]);
  });
});
