import { Rating } from 'ts-fsrs';
import { describe, expect, it } from 'vitest';
import { cardsOf, nextExercise, openLevels, ratingOf } from './schedule';
import type { PracticeAnswer } from './record';

const DAY = 86_400_000;
const START = Date.parse('2026-01-01T10:00:00Z');
const answer = (days: number, more: Partial<PracticeAnswer> = {}): PracticeAnswer => ({
  id: `a${days}`,
  skill: 'attenuate',
  level: 1,
  seed: 1,
  at: new Date(START + days * DAY).toISOString(),
  score: 1,
  seconds: 20,
  ...more,
});

describe('a rating', () => {
  const usual = [answer(0), answer(1), answer(2), answer(3)];
  it('comes from score and one’s own time', () => {
    expect(ratingOf(answer(4, { score: 0 }), usual)).toBe(Rating.Again);
    expect(ratingOf(answer(4, { score: 0.5 }), usual)).toBe(Rating.Hard);
    expect(ratingOf(answer(4, { seconds: 41 }), usual)).toBe(Rating.Hard);
    expect(ratingOf(answer(4), usual)).toBe(Rating.Good);
    expect(ratingOf(answer(4, { seconds: 900 }), usual.slice(0, 2))).toBe(Rating.Good);
  });
  it('is easy after three quick ones running', () => {
    const quick = (days: number) => answer(days, { seconds: 9 });
    expect(ratingOf(quick(4), usual)).toBe(Rating.Good);
    expect(ratingOf(quick(6), [...usual, quick(4), quick(5)])).toBe(Rating.Easy);
    expect(ratingOf(quick(6), [...usual, quick(4), answer(5)])).toBe(Rating.Good);
  });
});

describe('the schedule', () => {
  it('puts off what is right for longer each time, and brings back what is wrong', () => {
    const days = [0, 1, 4, 12, 30];
    const stable = days.map(
      (_, n) => cardsOf(days.slice(0, n + 1).map((d) => answer(d))).get('attenuate 1')!.stabilityDays,
    );
    stable.slice(1).forEach((s, n) => expect(s).toBeGreaterThan(stable[n]!));
    const wrong = cardsOf([...days.map((d) => answer(d)), answer(60, { score: 0 })]).get('attenuate 1')!;
    expect(wrong.stabilityDays).toBeLessThan(stable.at(-1)!);
    expect(wrong.due.getTime() - (START + 60 * DAY)).toBeLessThan(DAY);
  });
  it('opens a level when the one below is stable for a week, or by choice', () => {
    const once = cardsOf([answer(0)]);
    expect(openLevels('attenuate', once)).toEqual([1]);
    expect(openLevels('attenuate', cardsOf([answer(0), answer(1, { level: 3 })]))).toEqual([1, 3]);
    const settled = cardsOf([0, 1, 4, 12].map((d) => answer(d)));
    expect(settled.get('attenuate 1')!.stabilityDays).toBeGreaterThan(7);
    expect(openLevels('attenuate', settled)).toEqual([1, 2]);
  });
  it('does not depend on the order in which answers are read', () => {
    const all = [0, 1, 4, 12].map((d, n) => answer(d, { score: n === 2 ? 0.5 : 1 }));
    expect(cardsOf(all.toReversed())).toEqual(cardsOf(all));
  });
});

describe('what comes next', () => {
  const options = { now: new Date(START + 100 * DAY), sound: false };
  it('is what is due, before what is new, and never a seed again', () => {
    expect(nextExercise([], options)).toEqual({ skill: 'attenuate', level: 1, seed: 1 });
    const due = answer(0, { skill: 'linear-db', seed: 9 });
    expect(nextExercise([due], options)).toEqual({ skill: 'linear-db', level: 1, seed: 10 });
  });
  it('mixes groups, and leaves the ear out where there is no sound', () => {
    const seen: PracticeAnswer[] = [];
    const groups: string[] = [];
    for (let n = 0; n < 60; n++) {
      const next = nextExercise(seen, { ...options, now: new Date(START) })!;
      groups.push(next.skill);
      seen.push(answer(n / 1e5, next));
    }
    expect(groups.some((s) => s.startsWith('hear-'))).toBe(false);
    expect(nextExercise(seen, { ...options, sound: true, only: (s) => s.needsSound === true })?.skill).toMatch(
      /^hear-/,
    );
    expect(nextExercise(seen, { ...options, only: () => false })).toBeNull();
  });
});
