import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomPatch } from '../testing/randomPatch';
import { randomEdits } from '../testing/edits';
import { patchOf } from '../testing/patch';
import { editsBetween, inverseOf, isSame } from './between';
import { applyEdits } from './edit';
import type { Edit } from './edit';
import { addModule, connect } from './stages';

const patch = patchOf(
  { swell: ['lfo'], trim: ['offset', { amount: 0.4, volts: 2 }], tone: ['filter'] },
  ['swell.out > trim.in', 'trim.out > tone.cutoff'],
  { duration: 0.1 },
);
const did = (...edits: Edit[]) => applyEdits(patch, edits);

describe('edits', () => {
  it('an input takes one cable: plugging moves it', () => {
    const moved = did(connect('tone.cutoff', 'swell.out'));
    expect(moved.cables).toEqual([
      { from: 'swell.out', to: 'trim.in' },
      { from: 'swell.out', to: 'tone.cutoff' },
    ]);
    expect(applyEdits(moved, [connect('tone.cutoff', null)]).cables).toHaveLength(1);
  });
  it('ids stay free, pins go and come', () => {
    const once = did(...addModule(patch, 'lfo').edits);
    const twice = applyEdits(once, addModule(once, 'lfo').edits);
    expect(twice.modules.map((m) => m.id)).toEqual(['swell', 'trim', 'tone', 'lfo', 'lfo2']);
    const pin = (pinned: boolean): Edit => ({ do: 'pin', at: 'trim.out', pinned });
    expect(did(pin(true)).probes).toEqual([{ at: 'trim.out' }]);
    expect(did(pin(true), pin(true))).toEqual(did(pin(true)));
    expect(did(pin(true), pin(false))).toEqual(patch);
  });
  it('a dismissal is kept once, with its last reason, and can be taken back', () => {
    const dismiss = (reason: string | null): Edit => ({ do: 'dismiss', code: 'clip', at: 'trim.out', reason });
    const once = did(dismiss('wanted'), dismiss('a wave shaper'));
    expect(once.dismissed).toEqual([{ code: 'clip', at: 'trim.out', reason: 'a wave shaper' }]);
    expect(applyEdits(once, [dismiss(null)])).toEqual(patch);
  });
  it('a variant keeps the patch as it is, and a name that is taken gets the new state', () => {
    const first = did({ do: 'variant', name: 'dark', state: patch });
    const off = applyEdits(first, [connect('tone.cutoff', null)]);
    const second = applyEdits(off, [{ do: 'variant', name: 'dark', state: off }]);
    expect(first.variants[0]?.cables).toHaveLength(2);
    expect(second.variants.map((v) => [v.name, v.cables.length])).toEqual([['dark', 1]]);
    expect(applyEdits(second, [{ do: 'variant', name: 'dark', state: null }]).variants).toEqual([]);
  });
});

describe('edits and their inverses', () => {
  it('any list of edits, then its inverses, is the same document, to the order of every list', () => {
    fc.assert(
      fc.property(fc.nat(100_000), fc.integer({ min: 1, max: 12 }), (seed, count) => {
        const start = randomPatch(seed, { loops: true });
        const edits = randomEdits(seed, start, count);
        const undone = applyEdits(applyEdits(start, edits), inverseOf(start, edits));
        expect(undone).toEqual(start);
        expect(isSame(undone, start)).toBe(true);
      }),
      { numRuns: 150 },
    );
  });
  it('one by one, each takes back its own', () => {
    fc.assert(
      fc.property(fc.nat(100_000), (seed) => {
        let now = randomPatch(seed, { loops: true });
        for (const edit of randomEdits(seed, now, 8)) {
          const after = applyEdits(now, [edit]);
          expect(applyEdits(after, inverseOf(now, [edit]))).toEqual(now);
          now = after;
        }
      }),
      { numRuns: 60 },
    );
  });
  it('between any two patches there are edits', () => {
    fc.assert(
      fc.property(fc.nat(100_000), fc.nat(100_000), (x, y) => {
        const [a, b] = [randomPatch(x), randomPatch(y)];
        expect(applyEdits(a, editsBetween(a, b))).toEqual(b);
      }),
      { numRuns: 60 },
    );
  });
  it('say no more than what changed', () => {
    const after = did({ do: 'set', module: 'trim', param: 'amount', value: 0.5 });
    expect(editsBetween(patch, after)).toEqual([
      { do: 'splice', list: 'modules', at: 1, remove: 1, insert: [after.modules[1]] },
    ]);
    expect(editsBetween(patch, { ...patch })).toEqual([]);
  });
});
