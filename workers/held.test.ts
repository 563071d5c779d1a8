import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { applyEdits, printPatch } from '../core';
import type { Edit, Patch } from '../core';
import { patchOf } from '../core/testing/patch';
import { letGo, take } from './held';

const base = patchOf({ a: ['attenuverter', { amount: 0 }], l: ['lfo'] }, ['l.out > a.in']);
const turn = (value: number): Edit => ({ do: 'set', module: 'a', param: 'amount', value });
const amountOf = (patch: Patch): unknown => patch.modules[0]!.params!.amount;

beforeEach(letGo);

describe('the patch that a page and a worker speak of', () => {
  it('is the page’s own after any steps, whole or as edits, and its graph is made once a version', () => {
    const step = fc.tuple(fc.boolean(), fc.boolean(), fc.integer({ min: -10, max: 10 }));
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
        letGo();
        let [patch, version] = [base, 0];
        take({ version, patch });
        for (const [whole, again, tenths] of steps) {
          const edits = [turn(tenths / 10)];
          patch = applyEdits(patch, edits);
          const [on, next] = [version, version + 1];
          const graph = take(whole ? { version: next, patch } : { version: next, on, edits });
          version = next;
          expect(printPatch(graph.patch)).toEqual(printPatch(patch));
          // Another question about the same version: nothing is built anew, whatever comes with it.
          if (again) expect(take({ version, on: version, edits: [] })).toBe(graph);
        }
      }),
      { numRuns: 60 },
    );
  });
  it('is not guessed: edits of what is not held are refused by their version', () => {
    expect(() => take({ version: 2, on: 1, edits: [turn(0.5)] })).toThrow('version 1 of the patch is not held here');
    take({ version: 1, patch: base });
    expect(() => take({ version: 4, on: 3, edits: [turn(0.5)] })).toThrow('version 3');
    // What was refused changed nothing.
    expect(amountOf(take({ version: 2, on: 1, edits: [turn(0.25)] }).patch)).toBe(0.25);
    letGo();
    expect(() => take({ version: 3, on: 2, edits: [] })).toThrow('version 2');
  });
  it('of another page counts from the beginning: a whole one is taken, whatever its version', () => {
    take({ version: 1, patch: applyEdits(base, [turn(0.9)]) });
    expect(amountOf(take({ version: 1, patch: base }).patch)).toBe(0);
  });
});
