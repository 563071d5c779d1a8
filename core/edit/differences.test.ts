import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomPatch } from '../testing/randomPatch';
import { kindNamed } from '../kinds';
import { completeParams } from '../document/params';
import { differencesOf, differenceEdits } from './differences';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import { stateOf } from '../document/state';
import { applyEdits } from './edit';
import type { Patch, PatchState } from '../document/types';

const read = (doc: object): Patch => {
  const result = parsePatch({ format: 'fenvo.patch', version: 1, ...doc });
  if (!result.ok) throw new Error(result.errors.map((e) => `${e.path}: ${e.message}`).join('; '));
  return result.value;
};

/** Lists have an order in the editor that no difference is about. */
const sorted = ({ settings, modules, cables, normals, targets, macros }: PatchState): unknown => {
  const by = <T>(list: readonly T[]): string[] => list.map((x) => JSON.stringify(x)).sort();
  const bare = modules.map(({ params, ...m }) => {
    const all = completeParams(kindNamed(m.kind)!, params);
    return { ...m, params: Object.entries(all).sort(([a], [b]) => (a < b ? -1 : 1)) };
  });
  return {
    settings,
    modules: by(bare),
    cables: by(cables),
    normals: by(normals),
    targets: by(targets),
    macros: by(macros),
  };
};

const patch = read({
  modules: [
    { id: 'swell', kind: 'lfo', label: 'Swell' },
    { id: 'trim', kind: 'offset', label: 'Trim', params: { amount: 0.4, volts: 2 } },
    { id: 'tone', kind: 'filter' },
  ],
  cables: [
    { from: 'swell.out', to: 'trim.in' },
    { from: 'trim.out', to: 'tone.cutoff' },
  ],
  targets: [{ at: 'tone.cutoff', quantity: 'frequency', low: 200, high: 3200 }],
});

describe('differences of two states', () => {
  it('says nothing of a patch and itself', () => {
    expect(differencesOf(patch, patch)).toEqual([]);
  });

  it('names a parameter, a cable and a module, with what is here and there', () => {
    const other = applyEdits(patch, [
      { do: 'set', module: 'trim', param: 'amount', value: -0.4 },
      { do: 'plug', cable: { from: 'swell.inverted', to: 'trim.in' } },
      { do: 'add', module: { id: 'flip', kind: 'inverter', label: 'Flip' } },
    ]);
    expect(differencesOf(patch, other).map(({ what, here, there }) => [what, here, there])).toEqual([
      ['Flip', 'nothing', 'Inverter'],
      ['Trim gain', '0.4', '\u22120.4'],
      ['Cable into Trim in', 'Swell out', 'Swell inverted out'],
    ]);
  });

  it('takes one over and leaves the others', () => {
    const other = applyEdits(patch, [
      { do: 'set', module: 'trim', param: 'amount', value: 0.9 },
      { do: 'set', module: 'swell', param: 'rateHz', value: 3 },
    ]);
    const amount = differencesOf(patch, other).find((d) => d.what === 'Trim gain');
    const after = applyEdits(patch, differenceEdits(amount!));
    expect(after.modules[1]?.params).toEqual({ amount: 0.9, volts: 2 });
    expect(differencesOf(after, other).map((d) => d.what)).toEqual(['Swell rate']);
  });

  it('taken over one by one, they lead from any patch to any other, and every step can be saved', () => {
    fc.assert(
      fc.property(fc.nat(100_000), fc.nat(100_000), (x, y) => {
        const [a, b] = [randomPatch(x, { duration: 0.02, modules: 6 }), randomPatch(y, { duration: 0.02, modules: 7 })];
        let now = a;
        for (let round = 0; round < 60; round++) {
          const [first] = differencesOf(now, b);
          if (!first) break;
          now = applyEdits(now, differenceEdits(first));
          expect(parsePatch(JSON.parse(JSON.stringify(printPatch(now))))).toMatchObject({ ok: true });
        }
        expect(sorted(now)).toEqual(sorted(b));
      }),
      { numRuns: 60 },
    );
  });
});

describe('a kept state', () => {
  it('comes back whole, and a pin of what is gone goes', () => {
    const kept = stateOf(patch);
    const changed = {
      ...applyEdits(patch, [{ do: 'add', module: { id: 'extra', kind: 'noise' } }]),
      probes: [{ at: 'extra.out' }, { at: 'trim.out' }],
    };
    const back = applyEdits(changed, [{ do: 'state', state: kept }]);
    expect(stateOf(back)).toEqual(kept);
    expect(back.probes).toEqual([{ at: 'trim.out' }]);
  });

  it('is read by the rules of a patch, with its own place in an error', () => {
    const good = read({ variants: [{ name: 'slow', modules: [{ id: 'a', kind: 'lfo' }] }] });
    expect(good.variants[0]?.modules).toEqual([{ id: 'a', kind: 'lfo' }]);
    const bad = parsePatch({
      format: 'fenvo.patch',
      version: 1,
      variants: [{ name: 'slow', modules: [{ id: 'a', kind: 'lfo', params: { rateHz: 0 } }] }, { name: 'slow' }],
    });
    expect(!bad.ok && bad.errors.map((e) => e.path)).toEqual([
      'variants[0].modules[0].params.rateHz',
      'variants[1].name',
    ]);
  });
});

describe('an edit that takes sockets away', () => {
  it('takes what hung on them with it, so that the patch can still be saved', () => {
    const mixed = read({
      modules: [
        { id: 'a', kind: 'lfo' },
        { id: 'sum', kind: 'mixer', params: { inputs: 4 } },
      ],
      cables: [
        { from: 'a.out', to: 'sum.in1' },
        { from: 'a.out', to: 'sum.in4' },
      ],
      probes: [{ at: 'sum.in4' }],
    });
    const fewer = applyEdits(mixed, [{ do: 'set', module: 'sum', param: 'inputs', value: 2 }]);
    expect(fewer.cables).toEqual([{ from: 'a.out', to: 'sum.in1' }]);
    expect(fewer.probes).toEqual([]);
  });

  it('brings a knob inside a span that was made smaller', () => {
    const wide = applyEdits(patch, [
      { do: 'set', module: 'trim', param: 'maxAmount', value: 2 },
      { do: 'set', module: 'trim', param: 'amount', value: 1.8 },
      { do: 'set', module: 'trim', param: 'maxAmount', value: 1 },
    ]);
    expect(wide.modules[1]?.params?.amount).toBe(1);
  });
});
