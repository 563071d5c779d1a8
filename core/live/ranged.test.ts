import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Patch } from '../document/types';
import { knobsIn } from '../document/knobs';
import { applyEdits } from '../edit/edit';
import type { Edit } from '../edit/edit';
import { BoundsEngine } from '../bounds/bounds';
import { buildGraph } from '../graph/graph';
import { patchOf } from '../testing/patch';
import { randomValidEdits } from '../testing/edits';
import { randomPatch } from '../testing/randomPatch';
import { playedBeyond } from '../testing/sequences';
import { Ranged } from './ranged';

describe('what is seen while knobs are turned', () => {
  it('stays within what the knobs that were turned can make, whatever modules remember', () => {
    let known = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.array(fc.tuple(fc.nat(), fc.double({ min: 0, max: 1, noNaN: true })), { minLength: 1, maxLength: 8 }),
        (seed, turns) => {
          const patch = randomPatch(seed);
          const knobs = patch.modules.flatMap((m) => knobsIn(m, patch.settings.bpm));
          if (knobs.length === 0) return;
          const edits = turns.map(([which, share]): Edit[] => {
            const { at, min, max } = knobs[which % knobs.length]!;
            const [module = '', param = ''] = at.split('.');
            return [{ do: 'set', module, param, value: min + share * (max - min) }];
          });
          const seen = playedBeyond(patch, edits);
          known += seen.known;
          expect(seen.found).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
    expect(known).toBeGreaterThan(10_000);
  });
  it('and whatever is patched, as far as it is known', () => {
    let known = 0;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 1e6 }), (seed, other) => {
        const seen = playedBeyond(
          randomPatch(seed),
          randomValidEdits(other, randomPatch(seed), 6).map((e) => [e]),
        );
        known += seen.known;
        expect(seen.found).toEqual([]);
      }),
      { numRuns: 60 },
    );
    expect(known).toBeGreaterThan(5_000);
  });
  it('knows a long slew’s past, and finds a bound that is too narrow', () => {
    const patch = patchOf(
      { c: ['constant', { volts: 5, lowVolts: -5, highVolts: 5 }], s: ['slew', { rise: 5, fall: 5 }], o: ['offset'] },
      ['c.out > s.in', 's.out > o.in'],
    );
    const ranged = new Ranged(patch);
    const down = applyEdits(patch, [{ do: 'set', module: 'c', param: 'volts', value: -5 }]);
    ranged.edit(down);
    expect([...ranged.unknown]).toEqual([]);
    const rangeOf = (p: Patch) => new BoundsEngine().run(buildGraph(p)).get('o')!.outputs[0]!;
    expect(rangeOf(ranged.patch)).toEqual([-5, 5]);
    expect(rangeOf(down)[1]).toBeLessThan(5);
  });
  it('knows nothing behind what remembers another cable, and all of what does not', () => {
    const patch = patchOf(
      { c: ['constant'], d: ['constant', { volts: 3 }], s: ['slew'], o: ['offset'], x: ['offset'], far: ['offset'] },
      ['c.out > s.in', 's.out > o.in', 'c.out > x.in'],
    );
    const ranged = new Ranged(patch);
    ranged.edit(applyEdits(patch, [{ do: 'plug', cable: { from: 'd.out', to: 'x.in' } }]));
    expect([...ranged.unknown]).toEqual([]);
    ranged.edit(
      applyEdits(patch, [
        { do: 'plug', cable: { from: 'd.out', to: 's.in' } },
        { do: 'plug', cable: { from: 'd.out', to: 'x.in' } },
      ]),
    );
    expect([...ranged.unknown].sort()).toEqual(['o', 's']);
  });
});
