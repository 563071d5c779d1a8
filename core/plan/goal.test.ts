import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import { completeParams } from '../document/params';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import { allKinds, kindNamed } from '../kinds';
import { goalRequest, goalSources } from './goal';
import type { Goal } from './goal';
import { planChain } from './plan';

// A goal is about what one voltage does between two limits.
const ends = allKinds.flatMap((kind) =>
  (kind.ends ?? []).flatMap((end, i) => {
    const params = completeParams(kind);
    return end.window(params) && (end.exists?.(params) ?? true) ? [`${kind.name} ${i}`] : [];
  }),
);
const best = (goal: Goal) => planChain({ ...goalRequest(goal)!, stages: 1 }).proposals[0]!;
const cutoff = { kind: 'filter', socket: 'cutoff', by: 'lfo' } as const;

describe('a chain for a goal', () => {
  it('opens a filter between two frequencies, by a slow oscillator, with a voice through it', () => {
    const made = best({ ...cutoff, wish: { quantity: 'frequency', low: 250, high: 4000 } });
    expect(made.met).toBe(true);
    const reading = predict(made.patch).readings.find((r) => r.at === 'end.cutoff')!;
    expect(reading.low).toBeCloseTo(250, 1);
    expect(reading.high).toBeCloseTo(4000, 0);
    expect(made.patch.cables).toContainEqual({ from: 'voice.saw', to: 'end.in' });
  });

  it('reaches any two figures inside what any destination answers to, by any source', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ends),
        fc.constantFrom(...goalSources),
        fc.double({ min: 0.05, max: 0.45, noNaN: true }),
        fc.double({ min: 0.55, max: 0.95, noNaN: true }),
        (name, by, a, b) => {
          const [kindName = '', index = ''] = name.split(' ');
          const kind = kindNamed(kindName)!;
          const { socket, quantity, window, value } = kind.ends![Number(index)]!;
          const params = completeParams(kind);
          const [from, to] = window(params)!.map((v) => Math.min(8, Math.max(-8, v))) as [number, number];
          const figures = [a, b].map((share) => value(params, from + share * (to - from)));
          if (figures.some((f) => f === null)) return;
          const [low, high] = figures as [number, number];
          const made = best({ kind: kind.name, socket, wish: { quantity, low, high }, by });
          expect(parsePatch(JSON.parse(JSON.stringify(printPatch(made.patch)))).ok).toBe(true);
          expect({ by, end: name, low, high, met: made.met }).toMatchObject({ met: true });
        },
      ),
      { numRuns: 25 },
    );
  });

  it('opens four octaves about a middle, and stays inside what it is given', () => {
    const wide = best({ ...cutoff, wish: { want: 'span', quantity: 'frequency', span: 4, centre: 400 } });
    expect(wide.met).toBe(true);
    expect([wide.reading!.low, wide.reading!.high]).toEqual([expect.closeTo(100, 4), expect.closeTo(1600, 3)]);
    const wish = { want: 'within', quantity: 'gain', low: -20, high: 0 } as const;
    const inside = best({ kind: 'vca', socket: 'cv', wish, by: 'lfo' });
    expect(inside.met).toBe(true);
    expect(inside.reading!.low).toBeGreaterThanOrEqual(-20 - 1e-6);
    expect(inside.reading!.high).toBeLessThanOrEqual(1e-6);
  });

  it('says when it cannot: beyond what the destination answers to', () => {
    const made = best({ ...cutoff, wish: { quantity: 'frequency', low: 250, high: 900_000 } });
    expect(made.met).toBe(false);
    expect(made.reading!.high).toBeLessThan(30_000);
  });

  it('knows no destination that is none', () => {
    expect(
      goalRequest({ kind: 'filter', socket: 'out', wish: { quantity: 'volts', low: 0, high: 1 }, by: 'lfo' }),
    ).toBeNull();
  });
});
