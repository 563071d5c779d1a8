import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { completeParams } from '../document/params';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import { allKinds, kindNamed } from '../kinds';
import { predict } from '../answers/predict';
import { chainFor, goalSources } from './goal';

// A goal is about what one voltage does between two limits.
const ends = allKinds.flatMap((kind) =>
  (kind.ends ?? []).flatMap((end, i) => (end.window(completeParams(kind)) ? [`${kind.name} ${i}`] : [])),
);

describe('a chain for a goal', () => {
  it('opens a filter between two frequencies, by a slow oscillator', () => {
    const made = chainFor({
      kind: 'filter',
      socket: 'cutoff',
      wish: { want: 'range', low: 250, high: 4000 },
      by: 'lfo',
    })!;
    expect(made.reached).toBe(true);
    expect(made.amount).toBeCloseTo(0.4, 5);
    const reading = predict(made.patch).readings.find((r) => r.at === 'end.cutoff')!;
    expect(reading.low).toBeCloseTo(250, 1);
    expect(reading.high).toBeCloseTo(4000, 0);
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
          const end = kind.ends![Number(index)]!;
          const params = completeParams(kind);
          const [from, to] = end.window(params)!.map((v) => Math.min(8, Math.max(-8, v))) as [number, number];
          const figures = [a, b].map((share) => end.value(params, from + share * (to - from)));
          if (figures.some((f) => f === null)) return;
          const [low, high] = figures as [number, number];
          const made = chainFor({ kind: kind.name, socket: end.socket, wish: { want: 'range', low, high }, by });
          expect(made).not.toBeNull();
          expect(parsePatch(JSON.parse(JSON.stringify(printPatch(made!.patch)))).ok).toBe(true);
          expect({ by, end: `${kind.name}.${end.socket}`, low, high, reached: made!.reached }).toMatchObject({
            reached: true,
          });
        },
      ),
      { numRuns: 200 },
    );
  });

  it('opens four octaves about a middle, and stays inside what it is given', () => {
    const wide = chainFor({
      kind: 'filter',
      socket: 'cutoff',
      wish: { want: 'span', span: 4, centre: 400 },
      by: 'lfo',
    })!;
    expect(wide.reached).toBe(true);
    expect([wide.reading.low, wide.reading.high]).toEqual([expect.closeTo(100, 4), expect.closeTo(1600, 3)]);
    const inside = chainFor({ kind: 'vca', socket: 'cv', wish: { want: 'within', low: -20, high: 0 }, by: 'lfo' })!;
    expect(inside.reached).toBe(true);
    expect(inside.reading.low).toBeGreaterThanOrEqual(-20 - 1e-6);
    expect(inside.reading.high).toBeLessThanOrEqual(1e-6);
  });

  it('says when it cannot: beyond what the destination answers to', () => {
    const made = chainFor({
      kind: 'filter',
      socket: 'cutoff',
      wish: { want: 'range', low: 250, high: 900_000 },
      by: 'lfo',
    })!;
    expect(made.reached).toBe(false);
    expect(made.reading.high).toBeLessThan(30_000);
  });

  it('knows no destination that is none', () => {
    expect(chainFor({ kind: 'filter', socket: 'out', wish: { want: 'range', low: 0, high: 1 }, by: 'lfo' })).toBeNull();
  });
});
