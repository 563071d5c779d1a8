import type { Edit } from '@/core';
import { describe, expect, it } from 'vitest';
import { patchOf } from '@/core/testing/patch';
import { createDesk } from './desk';

const patch = patchOf({ l: ['lfo'], o: ['offset'], f: ['filter'] }, ['l.out > o.in', 'o.out > f.cutoff']);
const open = () => createDesk({ id: 'x', patch, saved: patch, revision: 3, savedAt: 'then' });
const turn = (value: number): Edit[] => [{ do: 'set', module: 'o', param: 'amount', value }];

describe('the desk’s state', () => {
  it('says whether all is saved: after an edit not, undone back to the saved patch again', () => {
    const desk = open();
    expect(desk.getState().save).toEqual({ kind: 'saved', at: 'then' });
    desk.getState().edit('trim amount', turn(0.5));
    expect(desk.getState().save.kind).toBe('unsaved');
    desk.getState().undo();
    expect(desk.getState()).toMatchObject({ patch, save: { kind: 'saved' } });
    desk.getState().redo();
    expect(desk.getState().save.kind).toBe('unsaved');
  });
  it('an acknowledged save counts only for the patch that was sent', () => {
    const desk = open();
    desk.getState().edit('one', turn(0.5));
    const sent = desk.getState().patch;
    desk.getState().setSave({ kind: 'saving' });
    desk.getState().edit('two', turn(0.6));
    desk.getState().confirm(4, sent, 'now');
    expect(desk.getState()).toMatchObject({ revision: 4, save: { kind: 'unsaved' } });
    desk.getState().confirm(5, desk.getState().patch, 'later');
    expect(desk.getState().save).toEqual({ kind: 'saved', at: 'later' });
  });
  it('a conflict stays one, whatever is edited, until it is settled', () => {
    const desk = open();
    desk.getState().setSave({ kind: 'conflict' });
    desk.getState().edit('one', turn(0.5));
    expect(desk.getState().save.kind).toBe('conflict');
    desk.getState().replace(patch, 9, 'settled');
    expect(desk.getState()).toMatchObject({ revision: 9, save: { kind: 'saved' }, history: { past: [] } });
  });
  it('an edit that changes nothing is none', () => {
    const desk = open();
    desk.getState().edit('nothing', []);
    desk.getState().edit('as it is', [{ do: 'put', put: { name: patch.name } }]);
    expect(desk.getState().history.past).toEqual([]);
  });
  it('follows joining paths and finds back', () => {
    const desk = open();
    desk.getState().showJoining('f.cutoff', 'm.in2');
    expect(desk.getState().trail).toEqual(['f.cutoff', 'm.in2']);
    desk.getState().showJoining('f.cutoff', 'n.in2');
    desk.getState().back(0);
    expect(desk.getState().trail).toEqual(['f.cutoff']);
    desk.getState().showEnd('f.pitch');
    expect(desk.getState().trail).toEqual(['f.pitch']);
  });
});
