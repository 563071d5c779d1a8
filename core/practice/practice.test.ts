import { describe, expect, it } from 'vitest';
import { knobsIn } from '../document/knobs';
import { printPatch } from '../document/print';
import { applyEdits } from '../edit/edit';
import { predict } from '../solve/cured';
import { distanceOf } from './distance';
import { markOf, worked, workedAnew } from './exercise';
import type { Worked } from './exercise';
import { allSkills } from './skills';
import { LEVELS } from './types';
import type { Answer, Level } from './types';

/** Seeds a skill and level; FENVO_PRACTICE_SEEDS asks for more. */
const SEEDS = Number(process.env.FENVO_PRACTICE_SEEDS ?? 1);

/** What an answer would be of the figures that the page of predictions gives, where it is a plain one of them. */
function predicted({ exercise: { ask, patch } }: Worked): Answer | null {
  if (ask.at === null || ask.unit !== 'V') return null;
  const { outputs, inputs } = predict(patch, { cures: false });
  const there = outputs[ask.at] ?? inputs[ask.at]!;
  const [low, high] = there.arrives;
  if (ask.answer === 'range') return { low, high };
  if (ask.figure === 'peakToPeak') return { value: high - low };
  return ask.answer === 'volts' ? { value: high } : null;
}

describe.each(allSkills.map((s) => [s.name] as const))('%s', (name) => {
  it.each(LEVELS)('draws good exercises of level %s', (level) => {
    for (let seed = 1; seed <= SEEDS; seed++) {
      const work = worked(name, level, seed);
      const { exercise, truth, slips, seen } = work;
      const { ask, patch } = exercise;
      const mark = markOf(exercise, truth);
      expect(mark).toMatchObject({ right: true, score: 1, slip: null, truth });
      for (const slip of slips) {
        expect(distanceOf(ask, patch, slip.answer, truth).times).toBeGreaterThan(1);
        expect(markOf(exercise, slip.answer)).toMatchObject({ right: false, slip: expect.any(String) as string });
      }
      const plain = predicted(work);
      if (plain) expect(distanceOf(ask, patch, plain, truth).off).toBeLessThan(1e-9);
      if ('low' in truth && ask.at !== null && ask.unit === 'V') {
        const [low, high] = seen.at(ask.at).bound;
        expect(truth.low).toBeGreaterThanOrEqual(low - 1e-6);
        expect(truth.high).toBeLessThanOrEqual(high + 1e-6);
        expect(truth.high - truth.low).toBeGreaterThan(0.02);
      }
      if ('choice' in truth) {
        expect(ask.choices!.length).toBeGreaterThan(truth.choice);
        expect(new Set(ask.choices!.map((c) => JSON.stringify(c))).size).toBe(ask.choices!.length);
        const right = ask.choices!.filter((_, choice) => markOf(exercise, { choice }).right);
        expect(right).toHaveLength(1);
      }
      for (const at of ask.knobs ?? []) {
        const knob = patch.modules.flatMap((m) => knobsIn(m, patch.settings.bpm)).find((k) => k.at === at)!;
        expect(
          'knobs' in truth &&
            distanceOf(
              ask,
              patch,
              { knobs: [{ at, value: knob.value }] },
              { knobs: truth.knobs.filter((k) => k.at === at) },
            ).times,
        ).toBeGreaterThan(1);
      }
    }
  });
});

describe('an exercise', () => {
  it('is the same for the same skill, level and seed, and another for another', () => {
    for (const name of ['attenuate', 'which-trace', 'set-two']) {
      const [a, b, c] = [7, 7, 8].map((seed) => workedAnew(name, 3, seed).exercise);
      expect(a).toEqual(b);
      expect(printPatch(a!.patch)).not.toEqual(printPatch(c!.patch));
    }
  });

  it('gives half the score up to three times what counts as right, and names the mistake', () => {
    const { exercise, truth } = worked('gain-offset', 1, 4);
    const { low, high } = truth as { low: number; high: number };
    const within = Math.max(0.05, 0.02 * (high - low));
    const at = (by: number) => markOf(exercise, { low: low + by * within, high });
    expect([0, 0.99, 2.9, 3.1].map((by) => at(by).score)).toEqual([1, 1, 0.5, 0]);
    const off = exercise.patch.modules.find((m) => m.id === 'both')!;
    const forgotten = applyEdits(exercise.patch, [{ do: 'set', module: off.id, param: 'volts', value: 0 }]);
    const [lowest, highest] = predict(forgotten, { cures: false }).outputs['both.out']!.arrives;
    expect(markOf(exercise, { low: lowest, high: highest }).slip).toBe('That forgets the offset.');
  });

  it('takes knobs that give the wanted range as right wherever they stand', () => {
    for (const level of LEVELS) {
      const { exercise, truth } = worked('set-two', level as Level, 12);
      const even = exercise.patch.modules.find((m) => m.kind === 'lfo')!;
      const knobs = (truth as { knobs: { at: string; value: number }[] }).knobs;
      if (Number(even.params?.lowVolts ?? -5) !== -5) continue;
      const other = knobs.map((k) => (k.at === 'both.amount' ? { ...k, value: -k.value } : k));
      expect(markOf(exercise, { knobs: other }).right).toBe(
        exercise.patch.modules[1]!.params?.order === undefined ||
          exercise.patch.modules[1]!.params?.order === 'scaleThenShift',
      );
    }
  });

  it('of a fault keeps it to itself, and counts the sockets that were measured', () => {
    const { exercise, drawn } = worked('find-fault', 3, 5);
    expect(JSON.stringify(exercise)).not.toContain(drawn.fault!.kind);
    const named = { faults: [drawn.fault!] };
    expect(markOf(exercise, named)).toMatchObject({ right: true, score: 1 });
    expect(markOf(exercise, { ...named, readings: 40 })).toMatchObject({ right: true, score: 0.5 });
    expect(markOf(exercise, { faults: [{ kind: 'dead', module: 'depth' }] })).toMatchObject({ right: false, score: 0 });
  });
});
