import { describe, expect, it, vi } from 'vitest';
import { stageChoices } from './choices';
import { kindsPage } from '@/core/docs/docs';
import { parsePatch } from '@/core/document/parse';
import { printPatch } from '@/core/document/print';
import { patchSchema } from '@/core/document/schema';
import { applyEdits } from '@/core/edit/edit';
import { insertStage, removeStages } from '@/core/edit/stages';
import { explain } from '@/core/findings';
import { buildGraph } from '@/core/graph/graph';
import { stripTo } from '@/core/graph/strip';
import { predict } from '@/core/answers/predict';
import { patchOf } from '@/core/testing/patch';
import type * as Kinds from '@/core/kinds/index';

// The one line of the index.
vi.mock('@/core/kinds/index', async (original) => {
  const real = await original<typeof Kinds>();
  const { doubler } = await import('@/core/testing/addedKind');
  return {
    ...real,
    allKinds: [...real.allKinds, doubler],
    kindNamed: (name: string) => (name === doubler.name ? doubler : real.kindNamed(name)),
  };
});

describe('a kind that is added by one file and one line', () => {
  const path = patchOf({ swell: ['lfo'], tone: ['filter'] }, ['swell.out > tone.cutoff'], { duration: 2 });
  const made = insertStage(path, 'tone.cutoff', 'doubler')!;
  const patch = applyEdits(path, made.edits);

  it('can be chosen, and is placed as it starts', () => {
    expect(stageChoices.map((c) => c.title)).toContain('Doubler');
    expect(patch.modules.find((m) => m.id === made.id)?.params).toEqual({ lift: 1 });
    expect(applyEdits(patch, removeStages(patch, [made.id]))).toEqual(path);
  });
  it('is read, printed, published and described', () => {
    expect(parsePatch(JSON.parse(JSON.stringify(printPatch(patch))))).toEqual({ ok: true, value: patch });
    const wrong = parsePatch({
      format: 'fenvo.patch',
      version: 1,
      modules: [{ id: 'd', kind: 'doubler', params: { times: 9 } }],
    });
    expect(wrong).toMatchObject({ ok: false, errors: [{ path: 'modules[0].params.times' }] });
    expect(JSON.stringify(patchSchema())).toContain('out = times·in + lift');
    expect(kindsPage()).toContain('Doubler');
  });
  it('is predicted: 2·(±5 V) + 1 V, in bounds and as seen, and in its own unit', () => {
    const { outputs, readings } = predict(patch);
    const { bound, seen } = outputs[`${made.id}.out`]!;
    expect(bound).toEqual([-9, 11]);
    expect(seen![0]).toBeCloseTo(-9, 6);
    expect(seen![1]).toBeCloseTo(11, 6);
    expect(readings.find((r) => r.at === `${made.id}.in`)).toMatchObject({ unit: '%', high: 62.5 });
  });
  it('stands in the strip', () => {
    const strip = stripTo(buildGraph(patch), 'tone.cutoff')!;
    expect(strip.frames.map((f) => f.module.kind.title)).toEqual(['LFO', 'Doubler', 'Filter (VCF)']);
  });
  it('is found at fault, and that is explained: its own output beyond the rails, and what its end ignores', () => {
    const loud = applyEdits(patch, [{ do: 'set', module: made.id, param: 'times', value: 4 }]);
    const clip = predict(loud).findings.find((f) => f.code === 'clip' && f.at === `${made.id}.out`);
    expect(clip).toBeDefined();
    expect(explain('clip').length).toBeGreaterThan(40);
  });
});
