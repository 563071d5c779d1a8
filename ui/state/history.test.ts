import { describe, expect, it } from 'vitest';
import { randomPatch } from '@/core/fuzz/randomPatch';
import { noHistory, record, redo, undo } from './history';
import type { History } from './history';

const patches = Array.from({ length: 6 }, (_, i) => randomPatch(i));

function after(count: number, key: string | null, apart: number): History {
  let history = noHistory;
  for (let i = 1; i <= count; i++)
    history = record(history, { label: `edit ${i}`, before: patches[i - 1]!, after: patches[i]!, key, at: i * apart });
  return history;
}

describe('undo and redo', () => {
  it('go back and forth through every edit, by name', () => {
    let history = after(4, null, 10);
    for (let i = 4; i >= 1; i--) {
      expect(history.past.at(-1)?.label).toBe(`edit ${i}`);
      const step = undo(history)!;
      expect(step.patch).toBe(patches[i - 1]);
      history = step.history;
    }
    expect(undo(history)).toBeNull();
    for (let i = 1; i <= 4; i++) {
      const step = redo(history)!;
      expect(step.patch).toBe(patches[i]);
      history = step.history;
    }
    expect(redo(history)).toBeNull();
  });
  it('one turn of a knob is one edit; a rest begins another', () => {
    const turned = after(4, 'trim.amount', 50);
    expect(turned.past).toHaveLength(1);
    expect(undo(turned)!.patch).toBe(patches[0]);
    expect(after(4, 'trim.amount', 2000).past).toHaveLength(4);
  });
  it('a new edit forgets what was undone', () => {
    const back = undo(after(3, null, 10))!.history;
    expect(record(back, { label: 'new', before: patches[2]!, after: patches[5]!, key: null, at: 1 }).future).toEqual(
      [],
    );
  });
});
