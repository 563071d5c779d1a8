import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { knobsIn } from '../document/knobs';
import { stateOf } from '../document/state';
import type { ModuleDoc, Patch } from '../document/types';
import { recipes } from '../recipes';
import { editedPatches } from '../testing/edits';
import { positionOf } from '../units/knob';
import { figureOf, markFigure } from './figures';
import { glided } from './glide';
import { isFull, recordedWalkthrough } from './recordWalkthrough';
import { Seen } from './seen';
import { stepFigures } from './stepFigures';
import { parseWalkthrough, patchesOf, printWalkthrough, walkthroughSchema } from './walkthrough';
import type { Walkthrough } from './walkthrough';
import { builtWalkthroughs } from './walkthroughs';
import { tour } from './walkthroughs/tour';

function read(json: unknown): Walkthrough {
  const result = parseWalkthrough(json);
  if (!result.ok) throw new Error(JSON.stringify(result.errors));
  return result.value;
}

const built = builtWalkthroughs.map((b) => [b.id, read(b.document)] as const);

describe('the walkthroughs that ship', () => {
  it('are one for every recipe, of 5 to 10 steps, and twelve longer ones', () => {
    const steps = (group: string) =>
      builtWalkthroughs.filter((b) => b.group === group).map((b) => [b.id, read(b.document).steps.length] as const);
    expect(steps('Recipes').map(([id]) => id)).toEqual(recipes.map((r) => r.id));
    expect(steps('Recipes').filter(([, n]) => n < 5 || n > 10)).toEqual([]);
    expect(steps('Basics')).toHaveLength(12);
    expect(steps('Basics').filter(([, n]) => n < 8)).toEqual([]);
    expect(new Set(builtWalkthroughs.map((b) => b.id)).size).toBe(builtWalkthroughs.length);
    expect(read(tour.document).steps.flatMap((s) => s.task ?? [])).toEqual([
      'target',
      'solve',
      'issues',
      'sheet',
      'listen',
    ]);
  });

  it.each(built)('%s: every step changes what it says, and points at something that is there', (_id, walkthrough) => {
    const patches = patchesOf(walkthrough);
    walkthrough.steps.forEach(({ set }, i) => {
      if (set.length > 0) expect(stateOf(patches[i + 1]!), `step ${i + 1}`).not.toEqual(stateOf(patches[i]!));
    });
    const figures = stepFigures(walkthrough);
    expect(figures.filter((f) => f.unit === '')).toEqual([]);
    expect(walkthrough.steps.every((s) => s.look !== undefined)).toBe(true);
    for (const { of, step, at, figure, ...truth } of figures.filter((f) => f.of === 'question')) {
      // What stands there before the step would be wrong: the patch that is seen gives nothing away.
      const before = figureOf(new Seen(patches[step]!, { only: [at] }).prediction, { at, figure });
      expect(truth.value, `${of} of step ${step + 1}`).not.toBeNull();
      expect(markFigure({ at, figure }, truth, before?.value ?? Infinity).right, `step ${step + 1}`).toBe(false);
      expect(markFigure({ at, figure }, truth, truth.value!).right).toBe(true);
    }
  });

  it('come back from their documents as they went out', () => {
    for (const [, walkthrough] of built) expect(read(printWalkthrough(walkthrough))).toEqual(walkthrough);
  });
});

/** What the page shows as an example. */
const example = (): Record<string, unknown> =>
  JSON.parse(/```json\n(.*?)```/s.exec(readFileSync('docs/walkthroughs.md', 'utf8'))?.[1] ?? '') as Record<
    string,
    unknown
  >;

describe('a walkthrough', () => {
  it('is read as its page shows it, and has the schema that is published', () => {
    expect(stepFigures(read(example())).length).toBeGreaterThan(0);
    expect(walkthroughSchema()).toEqual(JSON.parse(readFileSync('docs/walkthrough.schema.json', 'utf8')));
  });

  it.each([
    [{ format: 'fenvo.patch' }, ['format']],
    [{ steps: [] }, ['steps']],
    [{ steps: [{ text: '' }] }, ['steps[0].text']],
    [{ steps: [{ text: 'x', set: [{ at: 'trim.amout', value: 1 }] }] }, ['steps[0].set[0].at']],
    [{ steps: [{ text: 'x', set: [{ at: 'nobody.amount', value: 1 }] }] }, ['steps[0].set[0].at']],
    [{ steps: [{ text: 'x', set: [{ at: 'trim.amount', value: 9 }] }] }, ['steps[0].set[0].value']],
    [{ steps: [{ text: 'x', set: [{ at: 'slow.shape', value: 'round' }] }] }, ['steps[0].set[0].value']],
    [{ steps: [{ text: 'x', at: 'trim.out' }] }, ['steps[0].at']],
    [{ steps: [{ text: 'x', pins: ['trim.nothing'] }] }, ['steps[0].pins[0]']],
    [{ steps: [{ text: 'x', look: { at: 'soft.cutoff', figure: 'lowest' } }] }, ['steps[0].look.figure']],
    [{ steps: [{ text: 'x', variant: 'Storm' }] }, ['steps[0].variant']],
    [{ steps: [{ text: 'x', hurry: true }] }, ['steps[0].hurry']],
    [{ patch: { format: 'fenvo.patch', version: 1, modules: [{ id: 'a', kind: 'lamp' }] } }, ['patch.modules[0].kind']],
    [{ tempo: 3 }, ['tempo']],
  ])('is refused with the place of the fault: %j', (change, places) => {
    const result = parseWalkthrough({ ...tour.document, ...change });
    expect(result.ok ? [] : result.errors.map((e) => e.path)).toEqual(places);
  });

  it('moves its knobs from where they were to where they shall be, evenly over their travel', () => {
    for (const [, walkthrough] of built) {
      const patches = patchesOf(walkthrough);
      walkthrough.steps.forEach((step, i) => {
        const [before, after] = [patches[i]!, patches[i + 1]!];
        expect(glided(before, step, 1)).toEqual(after);
        const places = (share: number): number[] =>
          glided(before, step, share)
            .modules.flatMap((m) => knobsIn(m))
            .filter((k) => step.set.some((s) => s.at === k.at))
            .map((k) => positionOf({ min: k.min, max: k.max, taper: k.spec.taper }, k.value));
        const [start, half, end] = [places(0), places(0.5), places(1)];
        half.forEach((p, n) => expect(p).toBeCloseTo((start[n]! + end[n]!) / 2, 6));
      });
    }
  });

  it('that is recorded sets a travel before the knob that goes by it', () => {
    const offset = (params: ModuleDoc['params']): Patch => ({
      ...built[0]![1].patch,
      modules: [{ id: 'm', kind: 'offset', params: params ?? {} }],
      cables: [],
    });
    const recorded = recordedWalkthrough('Wider', offset({ amount: 1, maxAmount: 1 }), [
      { label: 'Wider', at: null, patch: offset({ amount: -4, maxAmount: 4 }) },
    ]);
    expect(recorded.steps[0]?.set).toEqual([
      { at: 'm.maxAmount', value: 4 },
      { at: 'm.amount', value: -4 },
    ]);
    const halfway = glided(recorded.patch, recorded.steps[0]!, 0.5);
    expect(halfway.modules[0]?.params?.amount).toBeCloseTo(-1.5, 9);
  });

  it('that is recorded leads to just what was done, step by step', () => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const [base, ...done] = [...editedPatches(seed, 12)];
        const gestures = done.map((patch, i) => ({ label: `Change ${i + 1}`, at: null, patch }));
        const walkthrough = recordedWalkthrough('Recorded', base!, gestures);
        const plain = (patch: (typeof done)[number]) => JSON.stringify(stateOf(patch).cables);
        patchesOf(walkthrough).forEach((patch, i) => expect(plain(patch)).toBe(plain([base!, ...done][i]!)));
        const again = parseWalkthrough(printWalkthrough(walkthrough));
        expect(again.ok ? again.value.steps.length : again.errors).toBe(gestures.length);
      }),
      { numRuns: 40 },
    );
    expect(isFull(Array.from({ length: 40 }, () => ({ label: '', at: null, patch: built[0]![1].patch })))).toBe(true);
  });
});
