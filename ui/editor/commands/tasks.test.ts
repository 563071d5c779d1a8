import { describe, expect, it } from 'vitest';
import {
  applyEdits,
  BoundsEngine,
  buildGraph,
  endsOf,
  glance,
  openedEnd,
  parsePatch,
  printPatch,
  stripTo,
} from '@/core';
import type { Patch } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { listedEnds, planOf } from './tasks';
import type { Made, Plan, Task } from './tasks';

const patch = patchOf(
  { swell: ['lfo'], trim: ['offset', { amount: 0.4, volts: 2 }], tone: ['filter'], spare: ['filter'], amp: ['vca'] },
  ['swell.out > trim.in', 'trim.out > tone.cutoff'],
  { duration: 0.1 },
);

function plan(task: Task, of: Patch = patch): Plan {
  const graph = buildGraph(of);
  return planOf(task, { graph, prediction: { ...glance(graph, new BoundsEngine().run(graph)), findings: [] } });
}

const tasks: readonly [string, Task][] = [
  ['insert', { do: 'insert', socket: 'tone.cutoff' }],
  ['replace a stage', { do: 'replace', id: 'trim' }],
  ['replace a source', { do: 'replace', id: 'swell' }],
  ['feed', { do: 'feed', socket: 'spare.cutoff' }],
  ['end', { do: 'end' }],
  ['module', { do: 'module' }],
  ['copy', { do: 'copy', from: 'tone.cutoff', mirrored: false }],
  ['copy mirrored', { do: 'copy', from: 'tone.cutoff', mirrored: true }],
];

describe('every choice of every task', () => {
  it.each(tasks)('%s: leads to a patch that can be saved, and to a stage and an end that are there', (_, task) => {
    const { choices, make, title } = plan(task);
    expect(title).toMatch(/^[A-Z]/);
    expect(choices.length).toBeGreaterThan(2);
    expect(new Set(choices.map((c) => c.key)).size).toBe(choices.length);
    for (const choice of choices) {
      const made = make(choice.key);
      expect(made, choice.key).not.toBeNull();
      const read = parsePatch(printPatch(applyEdits(patch, made!.edits)));
      expect(read.ok ? null : `${choice.key}: ${read.errors[0]?.message}`).toBeNull();
      const graph = buildGraph(applyEdits(patch, made!.edits));
      if (made!.select !== undefined) expect(graph.modules.map((m) => m.id)).toContain(made!.select);
      if (made!.show !== undefined) expect(stripTo(graph, made!.show)).not.toBeNull();
      // What is proposed never takes away what is there.
      for (const m of patch.modules) expect(graph.modules.map((x) => x.id)).toContain(m.id);
    }
  });
});

const patchAfter = (made: Made): Patch => applyEdits(patch, made.edits);

describe('what a task does', () => {
  const cableTo = (of: Patch, to: string) => of.cables.find((c) => c.to === to)?.from;

  it('a stage goes into the cable that it was asked for', () => {
    const made = plan({ do: 'insert', socket: 'tone.cutoff' }).make('slew')!;
    expect(cableTo(patchAfter(made), 'tone.cutoff')).toBe(`${made.select}.out`);
    expect(cableTo(patchAfter(made), `${made.select}.in`)).toBe('trim.out');
  });
  it('an output that is there is plugged in, a new source is made', () => {
    const feed = plan({ do: 'feed', socket: 'spare.cutoff' });
    expect(cableTo(patchAfter(feed.make('trim.out')!), 'spare.cutoff')).toBe('trim.out');
    const made = feed.make('envelope')!;
    expect(cableTo(patchAfter(made), 'spare.cutoff')).toBe(`${made.select}.out`);
  });
  it('a stage is not offered to be replaced by its own kind', () => {
    expect(plan({ do: 'replace', id: 'trim' }).choices.map((c) => c.key)).not.toContain('offset');
  });
  it('a new end stands with its own amount knob open', () => {
    const made = plan({ do: 'end' }).make('oscillator.fm')!;
    const added = patchAfter(made).modules.find((m) => m.id === made.select)!;
    expect(added.params).toEqual(openedEnd('oscillator', 'fm'));
    expect(made.show).toBe(`${made.select}.fm`);
  });
  it('a chain is copied to an end that is there, or to a new one', () => {
    const copy = plan({ do: 'copy', from: 'tone.cutoff', mirrored: false });
    expect(copy.choices.map((c) => c.key)).toContain('spare.cutoff');
    const there = copy.make('spare.cutoff')!;
    expect(buildGraph(patchAfter(there)).modules.length).toBe(patch.modules.length + 1);
    expect(stripTo(buildGraph(patchAfter(there)), 'spare.cutoff')!.frames.map((f) => f.module.kind.name)).toEqual([
      'lfo',
      'offset',
      'filter',
    ]);
  });
});

describe('the ends as listed', () => {
  it('those that are reached come first, then those that wait for a cable; a shown one is always there', () => {
    const graph = buildGraph(
      patchOf({ l: ['lfo'], f: ['filter'], spare: ['filter'], voice: ['oscillator'] }, ['l.out > f.cutoff']),
    );
    const ends = listedEnds(graph, endsOf(graph), null);
    expect(ends[0]).toBe('f.cutoff');
    expect(ends).toContain('spare.cutoff');
    expect(ends).not.toContain('voice.fm');
    expect(listedEnds(graph, endsOf(graph), 'voice.fm')).toContain('voice.fm');
    expect(listedEnds(graph, endsOf(graph), 'l.reset')).not.toContain('l.reset');
  });
});
