import { describe, expect, it } from 'vitest';
import { parsePatch, predict, printPatch } from '@/core';
import { patchOf } from '@/core/fuzz/patch';
import { randomPatch } from '@/core/fuzz/randomPatch';
import { addModule, connect, insertStage, removeStage, togglePin } from './edits';
import { insertable } from './strip/InsertMenu';

const patch = patchOf(
  { swell: ['lfo'], trim: ['offset', { amount: 0.4, volts: 2 }], tone: ['filter'] },
  ['swell.out > trim.in', 'trim.out > tone.cutoff'],
  { duration: 0.1 },
);
const valid = (x: typeof patch): boolean => parsePatch(JSON.parse(JSON.stringify(printPatch(x)))).ok;

describe('inserting and removing', () => {
  it.each(insertable.map((k) => k.name))('%s goes into the cable, and taking it out restores the path', (kind) => {
    const done = insertStage(patch, 'tone.cutoff', kind)!;
    expect(valid(done.patch)).toBe(true);
    expect(done.patch.cables.find((c) => c.to === 'tone.cutoff')?.from.startsWith(`${done.id}.`)).toBe(true);
    expect(done.patch.cables.some((c) => c.from === 'trim.out' && c.to.startsWith(`${done.id}.`))).toBe(true);
    expect(removeStage(done.patch, done.id)).toEqual(patch);
  });
  it('a new amplifier lets its signal through', () => {
    const done = insertStage(patch, 'tone.cutoff', 'vca')!;
    expect(predict(done.patch).outputs[`${done.id}.out`]!.bound).toEqual([0, 4]);
  });
  it('any removal from any patch leaves a valid one', () => {
    for (let seed = 0; seed < 200; seed++) {
      const random = randomPatch(seed, { loops: true });
      expect(valid(removeStage(random, random.modules[seed % random.modules.length]!.id))).toBe(true);
    }
  });
});

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
});
