import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdits, blank, handAt, parsePatch, printPatch } from '@/core';
import type { Hand, Patch } from '@/core';
import { Take } from './take';
import { quantised } from './quantise';
import { asPlayed, handEdits, handsOf } from './takeHands';

const patch: Patch = {
  ...blank,
  settings: { ...blank.settings, bpm: 120 },
  modules: [{ id: 'fader', kind: 'constant', params: { lowVolts: -5, highVolts: 5 } }],
};
const AT = 'fader.volts';

/** A take in which a fader was set to values at times. */
function taken(moves: readonly (readonly [t: number, volts: number])[], ended: number, hand?: Hand, begun = 0) {
  const take = new Take(begun, begun > 0);
  let now: Patch = hand ? { ...patch, hands: [hand] } : patch;
  moves.forEach(([t, value], i) => {
    const next = applyEdits(now, [{ do: 'set', module: 'fader', param: 'volts', value }]);
    take.note(now, next, i + 1, t);
    now = next;
  });
  return take.recorded(ended);
}
const at = (hand: Hand | undefined, t: number): number => Math.round(handAt(hand!, t) * 1e3) / 1e3;
const saw: Hand = {
  at: AT,
  points: [
    { t: 0, value: 0 },
    { t: 2, value: 4 },
  ],
  interpolation: 'linear',
  loop: false,
};

describe('a quantised take', () => {
  it('moves each gesture to the nearest sixteenth, and keeps the length of a gate', () => {
    const [hand] = handsOf(taken([[0.27, 5], [0.33, 0], [0.49, 5], [0.6, 0]], 1), { ...asPlayed, gridBeats: 0.25 }); // prettier-ignore
    // At 120 bpm a sixteenth is 125 ms.
    for (const [t, volts] of [
      [0.249, 0],
      [0.256, 5],
      [0.309, 5],
      [0.316, 0],
      [0.499, 0],
      [0.506, 5],
      [0.609, 5],
      [0.616, 0],
    ] as const)
      expect(at(hand, t), String(t)).toBe(volts);
  });
  it('begins every run on the grid unless it is a release, keeps all values and their order', () => {
    const move = fc.record({
      wait: fc.double({ min: 0.001, max: 0.4, noNaN: true }),
      value: fc.integer({ min: 1, max: 99 }),
    });
    fc.assert(
      fc.property(fc.array(move, { minLength: 1, maxLength: 30 }), fc.constantFrom(0.125, 0.25, 0.5), (list, grid) => {
        let [t, from] = [0, 0];
        const moves = list.map(({ wait, value }) => {
          const m = { begins: (t += wait), from, value: value + 1000 * (from + 1) };
          from++;
          return m;
        });
        const out = quantised(moves, grid);
        expect(out.map((m) => m.value)).toEqual(moves.map((m) => m.value));
        const times = out.map((m) => m.begins);
        expect(times).toEqual([...times].sort((a, b) => a - b));
        out.forEach((m, i) => {
          expect(Math.abs(m.begins - moves[i]!.begins)).toBeLessThanOrEqual(grid);
          const isFirst = i === 0 || moves[i]!.begins - moves[i - 1]!.begins > 0.03;
          const isHeldUp = i > 0 && m.begins === out[i - 1]!.begins;
          if (isFirst && !isHeldUp) expect(Math.abs(m.begins / grid - Math.round(m.begins / grid))).toBeLessThan(1e-9);
        });
      }),
    );
  });
});

describe('a looped take', () => {
  it('plays its last beats over and over, each when it was played', () => {
    // Four beats are 2 s; it ends at 5.5 s.
    const recorded = taken([[3, 1], [4, 2], [4.5, 3], [5.2, 4]], 5.5); // prettier-ignore
    const [hand] = handsOf(recorded, { ...asPlayed, loopBeats: 4 });
    expect(hand!.loop).toBe(true);
    expect(hand!.points.at(-1)!.t).toBeCloseTo(2, 5);
    const once = handsOf(recorded)[0];
    for (const t of [3.6, 3.9, 4.3, 4.9, 5.1, 5.4])
      for (const turns of [-2, -1, 0, 1, 5]) {
        if (t + 2 * turns < 0) continue;
        expect(at(hand, t + 2 * turns), `${t} + ${turns} turns`).toBe(at(once, t));
      }
  });
  it('that is shorter than its loop holds to its end', () => {
    const [hand] = handsOf(taken([[0.5, 3]], 1), { ...asPlayed, loopBeats: 8 });
    expect([0.2, 0.6, 1.5, 3.9, 4.2, 4.6].map((t) => at(hand, t))).toEqual([0, 3, 3, 3, 0, 3]);
  });
});

describe('a take over what turned the knob before', () => {
  it('holds what was heard: the hand until it was touched, then the take to its end', () => {
    const [hand] = handsOf(taken([[1, -2], [1.4, -3]], 1.5, saw)); // prettier-ignore
    expect([0.25, 0.75, 0.999, 1.2, 1.45, 1.8, 3].map((t) => at(hand, t))).toEqual([0.5, 1.5, 1.998, -2, -3, -3, -3]);
    // It went from where the hand stood.
    expect(at(hand, 1.0025)).toBe(0);
  });
  it('overdubbed, goes on with the hand where it ends', () => {
    const [hand] = handsOf(taken([[1, -2], [1.4, -3]], 1.5, saw), { ...asPlayed, overdub: true }); // prettier-ignore
    expect([0.5, 1.2, 1.499, 1.501, 1.75, 3].map((t) => at(hand, t))).toEqual([1, -2, -3, 3.002, 3.5, 4]);
  });
  it('overdubbed on a loop, replaces that part of the loop', () => {
    const [hand] = handsOf(taken([[5, -2]], 5.5, { ...saw, loop: true }), { ...asPlayed, overdub: true }); // prettier-ignore
    expect(hand!.points.at(-1)!.t).toBeCloseTo(2, 5);
    expect([0.5, 0.9, 1.2, 1.49, 1.6, 1.9, 2.5, 3.2].map((t) => at(hand, t))).toEqual([
      1, 1.8, -2, -2, 3.2, 3.8, 1, -2,
    ]);
  });
  it('of steps holds each step until the touch', () => {
    const [hand] = handsOf(taken([[1.5, 5]], 2, { ...saw, interpolation: 'hold', points: [{ t: 0, value: 1 }, { t: 1, value: 2 }] })); // prettier-ignore
    expect([0.5, 0.99, 1.01, 1.4, 1.6].map((t) => at(hand, t))).toEqual([1, 1, 2, 2, 5]);
  });
});

describe('a counted-in take', () => {
  it('leaves out what was turned before it began, but for what was just early', () => {
    const [hand] = handsOf(taken([[0.5, 1], [1.95, 3], [2.5, 4]], 3, undefined, 2)); // prettier-ignore
    expect(hand!.points[0]).toEqual({ t: 2, value: 1 });
    expect([2.1, 2.6].map((t) => at(hand, t))).toEqual([3, 4]);
  });
});

it('a take that the page’s clock began too late loses nothing of what was heard', () => {
  const take = new Take(5);
  const next = applyEdits(patch, [{ do: 'set', module: 'fader', param: 'volts', value: 3 }]);
  take.note(patch, next, 1, 5.1);
  take.heard(1, 4.2);
  const [hand] = handsOf(take.recorded(6));
  expect([4.19, 4.21, 5].map((t) => at(hand, t))).toEqual([0, 3, 3]);
});

it('whatever its shape, a take is a document', () => {
  const move = fc.tuple(
    fc.double({ min: 0, max: 10, noNaN: true }),
    fc.integer({ min: -50, max: 50 }).map((v) => v / 10),
  );
  fc.assert(
    fc.property(
      fc.array(move, { minLength: 1, maxLength: 40 }),
      fc.record({
        gridBeats: fc.constantFrom(null, 0.25, 1),
        loopBeats: fc.constantFrom(null, 1, 4, 32),
        overdub: fc.boolean(),
      }),
      fc.constantFrom(undefined, saw, { ...saw, loop: true }, { ...saw, interpolation: 'hold' as const }),
      (moves, shape, hand) => {
        const ordered = moves.toSorted(([a], [b]) => a - b);
        const hands = handsOf(taken(ordered, 10, hand), shape);
        const parsed = parsePatch(printPatch(applyEdits(patch, handEdits(hands))));
        expect(parsed.ok, JSON.stringify(parsed)).toBe(true);
      },
    ),
    { numRuns: 60 },
  );
});
