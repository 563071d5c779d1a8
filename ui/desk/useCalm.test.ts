import { describe, expect, it } from 'vitest';
import { BoundsEngine, buildGraph, endsOf, glance, stripTo } from '@/core';
import type { Patch } from '@/core';
import { patchOf } from '@/core/fuzz/patch';
import { createStore } from 'zustand';
import { relabel, setParam, togglePin } from './edits';
import { removeStages } from './stages';
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
    ends: endsOf(graph),
    strip: stripTo(graph, end),
    pictures: createStore<Pictures>(() => new Map()),
    full: null,
    failure: null,
    progress: null,
    cancel: () => undefined,
  };
}

describe('what may wait a moment', () => {
  const before = predicted(patch);
  it.each<[string, Predicted, boolean]>([
    ['a knob', predicted(setParam(patch, 'a', 'amount', 0.3)), true],
    ['nothing', before, true],
    ['a stage that goes', predicted(removeStages(patch, ['a'])), false],
    ['a pin', predicted(togglePin(patch, 'a.out')), false],
    ['another end', predicted(patch, 'a.in'), false],
  ])('%s', (_, after, waits) => {
    expect(turns(before, after)).toBe(waits);
  });
  it('a name too: it is read, not worked with', () => {
    expect(turns(before, predicted(relabel(patch, 'a', 'Trim')))).toBe(true);
  });
});
