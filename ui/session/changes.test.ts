import { describe, expect, it } from 'vitest';
import { patchOf } from '@/core/testing/patch';
import { Changes } from './changes';
import { createDesk } from './desk';

const deskOf = () => {
  const patch = patchOf({ trim: ['offset'] });
  return createDesk({ id: 'a', patch, saved: patch, revision: 1, savedAt: '2026-01-01T00:00:00Z' });
};
const set = (value: number) => [{ do: 'set', module: 'trim', param: 'volts', value } as const];

describe('what was changed since the last save', () => {
  it('is named as the undo list has it, a turned knob once, with what was undone', () => {
    const desk = deskOf();
    const changes = new Changes(desk.getState().history);
    desk.subscribe(({ history }) => changes.note(history));
    const { edit, undo } = desk.getState();
    edit('Trim offset 1.00 V', set(1), 'trim.volts');
    edit('Trim offset 2.00 V', set(2), 'trim.volts');
    edit('Rename to Low water', [{ do: 'put', put: { name: 'Low water' } }]);
    expect(changes.list).toEqual(['Trim offset 2.00 V', 'Rename to Low water']);
    undo();
    expect(changes.list.at(-1)).toBe('Undo: Rename to Low water');
  });
  it('of a save that arrived is told no more; what came meanwhile stays', () => {
    const desk = deskOf();
    const changes = new Changes(desk.getState().history);
    desk.subscribe(({ history }) => changes.note(history));
    const { edit } = desk.getState();
    edit('first', set(1));
    const sent = changes.list.length;
    edit('second', set(2));
    changes.saved(sent);
    expect(changes.list).toEqual(['second']);
  });
});
