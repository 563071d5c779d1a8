import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdits, editsBetween } from '@/core';
import type { Patch } from '@/core';
import { editedPatches } from '@/core/testing/edits';
import { randomPatch } from '@/core/testing/randomPatch';
import { noHistory, record, redo, undo } from './history';
import type { History } from './history';

const patches = Array.from({ length: 6 }, (_, i) => randomPatch(i));
const at = (i: number): Patch => patches[i]!;

function after(count: number, key: string | null, apart: number): History {
  let history = noHistory;
  for (let i = 1; i <= count; i++) {
    const edits = editsBetween(at(i - 1), at(i));
    history = record(history, at(i - 1), at(i), { label: `edit ${i}`, edits, key, at: i * apart });
  }
  return history;
}

describe('undo and redo', () => {
  it('go back and forth through every edit, by name', () => {
    let history = after(4, null, 10);
    let now = at(4);
    for (let i = 4; i >= 1; i--) {
      expect(history.past.at(-1)?.label).toBe(`edit ${i}`);
      const step = undo(history)!;
      now = applyEdits(now, step.edits);
      expect(now).toEqual(patches[i - 1]);
      history = step.history;
    }
    expect(undo(history)).toBeNull();
    for (let i = 1; i <= 4; i++) {
      const step = redo(history)!;
      now = applyEdits(now, step.edits);
      expect(now).toEqual(patches[i]);
      history = step.history;
    }
    expect(redo(history)).toBeNull();
  });
  it('one turn of a knob is one edit; a rest begins another', () => {
    const turned = after(4, 'trim.amount', 50);
    expect(turned.past).toHaveLength(1);
    const back = undo(turned)!;
    expect(applyEdits(at(4), back.edits)).toEqual(patches[0]);
    expect(applyEdits(at(0), redo(back.history)!.edits)).toEqual(patches[4]);
    expect(after(4, 'trim.amount', 2000).past).toHaveLength(4);
  });
  it('a new edit forgets what was undone', () => {
    const back = undo(after(3, null, 10))!.history;
    const edits = editsBetween(at(2), at(5));
    expect(record(back, at(2), at(5), { label: 'new', edits, key: null, at: 1 }).future).toEqual([]);
  });
  it('of any list of edits, some of one turn, lead back to the very beginning and forth again', () => {
    fc.assert(
      fc.property(fc.nat(1000), fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }), (seed, turning) => {
        const all = [...editedPatches(seed, 12)];
        const [start, end] = [all[0]!, all.at(-1)!];
        let history = noHistory;
        all.slice(1).forEach((now, i) => {
          const before = all[i]!;
          const key = turning[i] ? 'one' : null;
          history = record(history, before, now, { label: '', edits: editsBetween(before, now), key, at: i });
        });
        let now = end;
        for (let step = undo(history); step; step = undo(history)) {
          now = applyEdits(now, step.edits);
          history = step.history;
        }
        expect(now).toEqual(start);
        for (let step = redo(history); step; step = redo(history)) {
          now = applyEdits(now, step.edits);
          history = step.history;
        }
        expect(now).toEqual(end);
      }),
      { numRuns: 30 },
    );
  });
});
