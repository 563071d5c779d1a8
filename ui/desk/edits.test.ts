import { describe, expect, it } from 'vitest';
import { patchOf } from '@/core/fuzz/patch';
import { bringBack, connect, dismiss, dropVariant, keepVariant, togglePin } from './edits';
import { addModule } from './stages';

const patch = patchOf(
  { swell: ['lfo'], trim: ['offset', { amount: 0.4, volts: 2 }], tone: ['filter'] },
  ['swell.out > trim.in', 'trim.out > tone.cutoff'],
  { duration: 0.1 },
);
describe('other edits', () => {
  it('an input takes one cable: plugging moves it', () => {
    const moved = connect(patch, 'tone.cutoff', 'swell.out');
    expect(moved.cables).toEqual([
      { from: 'swell.out', to: 'trim.in' },
      { from: 'swell.out', to: 'tone.cutoff' },
    ]);
    expect(connect(moved, 'tone.cutoff', null).cables).toHaveLength(1);
  });
  it('ids stay free, pins toggle', () => {
    const twice = addModule(addModule(patch, 'lfo').patch, 'lfo');
    expect(twice.patch.modules.map((m) => m.id)).toEqual(['swell', 'trim', 'tone', 'lfo', 'lfo2']);
    expect(togglePin(togglePin(patch, 'trim.out'), 'trim.out')).toEqual(patch);
  });
  it('a dismissal is kept once, with its last reason, and can be taken back', () => {
    const once = dismiss(dismiss(patch, 'clip', 'trim.out', 'wanted'), 'clip', 'trim.out', 'a wave shaper');
    expect(once.dismissed).toEqual([{ code: 'clip', at: 'trim.out', reason: 'a wave shaper' }]);
    expect(bringBack(once, 'clip', 'trim.out')).toEqual(patch);
  });
  it('a variant keeps the patch as it is, and a name that is taken gets the new state', () => {
    const first = keepVariant(patch, 'dark');
    const second = keepVariant(connect(first, 'tone.cutoff', null), 'dark');
    expect(first.variants[0]?.cables).toHaveLength(2);
    expect(second.variants.map((v) => [v.name, v.cables.length])).toEqual([['dark', 1]]);
    expect(dropVariant(second, 'dark').variants).toEqual([]);
  });
});
