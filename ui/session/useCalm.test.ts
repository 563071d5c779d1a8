import { describe, expect, it } from 'vitest';
import { applyEdits, BoundsEngine, buildGraph, endsOf, glance, removeStages, stripTo } from '@/core';
import type { Edit, Patch } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { createStore } from 'zustand';
import { turns } from './useCalm';
import type { Pictures, Predicted } from './usePrediction';

const patch = patchOf({ l: ['lfo'], a: ['offset'], f: ['filter'] }, ['l.out > a.in', 'a.out > f.cutoff']);

function predicted(of: Patch, end = 'f.cutoff'): Predicted {
  const graph = buildGraph(of);
  const bounds = new BoundsEngine().run(graph);
  return {
    graph,
    bounds,
    prediction: { ...glance(graph, bounds), findings: [] },
    missed: [],
    ends: endsOf(graph),
    strip: stripTo(graph, end),
    shown: [],
    window: null,
    pictures: createStore<Pictures>(() => new Map()),
    full: null,
    failure: null,
    progress: null,
    cancel: () => undefined,
  };
}

const did = (...edits: Edit[]): Patch => applyEdits(patch, edits);

describe('what may wait a moment', () => {
  const before = predicted(patch);
  it.each<[string, Predicted, boolean]>([
    ['a knob', predicted(did({ do: 'set', module: 'a', param: 'amount', value: 0.3 })), true],
    ['nothing', before, true],
    ['a stage that goes', predicted(did(...removeStages(patch, ['a']))), false],
    ['a pin', predicted(did({ do: 'pin', at: 'a.out', pinned: true })), false],
    ['another end', predicted(patch, 'a.in'), false],
  ])('%s', (_, after, waits) => {
    expect(turns(before, after)).toBe(waits);
  });
  it('a name too: it is read, not worked with', () => {
    expect(turns(before, predicted(did({ do: 'label', module: 'a', label: 'Trim' })))).toBe(true);
  });
});
