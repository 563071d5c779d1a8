import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { predict } from '../solve/cured';
import { patchOf } from '../testing/patch';
import { macroEdits } from './macro';
import { macrosIn } from './read';
import type { Macro, MacroRow } from './types';

const bare = patchOf({
  tide: ['constant', { volts: 0 }, { label: 'Tide' }],
  voice: ['oscillator', { baseHz: 110 }],
  water: ['filter', { cutoffHz: 200 }],
  hull: ['vca'],
  echo: ['delay', { seconds: 0.1, timeAmount: 1 }],
  pan: ['crossfade', { cvAmount: 1 }],
});
const macro: Macro = {
  name: 'Tide',
  fader: 'tide',
  span: [0, 5],
  rows: [
    { end: 'water.cutoff', from: 200, to: 3200, curve: 'straight', begins: 0 },
    { end: 'hull.cv', from: -20, to: 0, curve: 'slow', begins: 0 },
    { end: 'echo.time', from: 0.4, to: 0.05, curve: 'straight', begins: 2 },
    { end: 'pan.cv', from: 80, to: 20, curve: 'switch', begins: 3 },
    { end: 'voice.pitch', from: 110, to: 220, curve: 'slow', begins: 1 },
  ],
};

/** What the ends read with the fader at some volts. */
function read(patch: Patch, volts: number): Record<string, number | null> {
  const at = applyEdits(patch, [{ do: 'set', module: 'tide', param: 'volts', value: volts }]);
  return Object.fromEntries(
    predict(at, { simulation: false }).readings.flatMap((r) => (r.further ? [] : [[r.at, r.high] as const])),
  );
}
const ends = { end: 'water.cutoff', curve: 'straight', stages: ['tide-water'] };
const parsed = (doc: object): Patch => {
  const result = parsePatch(JSON.parse(JSON.stringify(doc)));
  if (!result.ok) throw new Error(JSON.stringify(result.errors));
  return result.value;
};
const made = applyEdits(bare, macroEdits(bare, macro).edits);

describe('one fader to many ends', () => {
  it('gives each end its figures at both ends of its way', () => {
    expect(macroEdits(bare, macro).faults).toEqual([]);
    const [down, up] = [read(made, 0), read(made, 5)];
    for (const row of macro.rows) {
      expect(down[row.end], row.end).toBeCloseTo(row.from, 3);
      expect(up[row.end], row.end).toBeCloseTo(row.to, 3);
    }
  });

  it('waits where it begins later, bends where it is slow, and switches', () => {
    const at = (volts: number) => read(made, volts);
    expect(at(2)['echo.time']).toBeCloseTo(0.4, 6);
    expect(at(3.5)['echo.time']).toBeCloseTo(Math.sqrt(0.4 * 0.05), 4);
    expect(at(2.9)['pan.cv']).toBeCloseTo(80, 6);
    expect(at(3.1)['pan.cv']).toBeCloseTo(20, 6);
    // A quarter of the way is done half way: an octave by its square.
    expect(at(3)['voice.pitch']).toBeCloseTo(110 * 2 ** 0.25, 2);
  });

  it('is ordinary stages, read back as the table, and changed as the table', () => {
    const again = parsePatch(JSON.parse(JSON.stringify(printPatch(made))));
    if (!again.ok) throw new Error(JSON.stringify(again.errors));
    const [found] = macrosIn(again.value);
    expect(found).toMatchObject({ name: 'Tide', fader: 'tide', span: [0, 5] });
    for (const row of macro.rows) {
      const back = found!.rows.find((r) => r.end === row.end)!;
      expect(back.curve).toBe(row.curve);
      expect(back.begins).toBeCloseTo(row.begins, 4);
      expect(back.from).toBeCloseTo(row.from, 3);
      expect(back.to).toBeCloseTo(row.to, 3);
    }
    const fewer = { ...found!, rows: found!.rows.slice(0, 1) };
    const left = applyEdits(again.value, macroEdits(again.value, fewer).edits);
    expect(left.modules).toHaveLength(bare.modules.length + 1);
    expect(macrosIn(left)[0]!.rows).toHaveLength(1);
  });

  it('is known by the document: no label can lose it or make one', () => {
    const renamed = applyEdits(made, [
      { do: 'label', module: 'tide', label: 'Ebb' },
      { do: 'label', module: 'water', label: 'Pool' },
      { do: 'label', module: made.macros[0]!.rows[0]!.stages[0]!, label: 'Trim' },
    ]);
    expect(macrosIn(renamed)[0]).toMatchObject({ name: 'Ebb', fader: 'tide', rows: macrosIn(made)[0]!.rows });
    const changed = macroEdits(renamed, { ...macrosIn(renamed)[0]!, name: 'Flood' });
    expect(changed.occupied).toEqual([]);
    const again = applyEdits(renamed, changed.edits);
    expect(again.modules).toHaveLength(made.modules.length);
    expect(macrosIn(again)[0]).toMatchObject({ name: 'Flood', rows: expect.objectContaining({ length: 5 }) });
    // Stages that are only called as a macro's are none.
    expect(macrosIn(parsed({ ...printPatch(made), macros: [] }))).toEqual([]);
    const left = applyEdits(made, [{ do: 'macro', fader: 'tide', macro: null }]);
    expect(macrosIn(parsed(printPatch(left)))).toEqual([]);
  });

  it('is found in a document from before it was kept there', () => {
    const old = parsed(JSON.parse(readFileSync('core/document/kept/macros-by-label.fenvo.json', 'utf8')));
    expect(macrosIn(old)).toEqual(macrosIn(made));
    expect(parsed(printPatch(old)).macros).toEqual(old.macros);
  });

  it('asks what becomes of what an end gets already', () => {
    const fed = applyEdits(bare, [
      { do: 'add', module: { id: 'swell', kind: 'lfo' } },
      { do: 'plug', cable: { from: 'swell.out', to: 'water.cutoff' } },
    ]);
    const [row] = macro.rows as [MacroRow];
    const one = (onto?: 'mix' | 'replace'): Macro => ({ ...macro, rows: [{ ...row, ...(onto && { onto }) }] });
    expect(macroEdits(fed, one())).toEqual({
      edits: [],
      faults: [],
      occupied: [{ row: 0, end: 'water.cutoff', from: 'swell.out' }],
    });
    const replaced = applyEdits(fed, macroEdits(fed, one('replace')).edits);
    expect(replaced.cables.filter((c) => c.from === 'swell.out')).toEqual([]);
    const mixed = applyEdits(fed, macroEdits(fed, one('mix')).edits);
    const sum = (patch: Patch): readonly number[] => predict(patch).inputs['water.cutoff']!.bound;
    const alone = sum(replaced);
    expect(sum(mixed)).toEqual([alone[0]! - 5, alone[1]! + 5]);
    // Laid out anew, it stays beside what was there; and with it gone, what was there is.
    const [found] = macrosIn(mixed);
    const again = applyEdits(mixed, macroEdits(mixed, found!).edits);
    expect(again.modules).toHaveLength(mixed.modules.length);
    expect(sum(again)).toEqual(sum(mixed));
    const without = applyEdits(mixed, macroEdits(mixed, { ...found!, rows: [] }).edits);
    expect(sum(without)).toEqual([-5, 5]);
  });

  it('loses an end with its stages, and goes with its fader', () => {
    const [first, ...others] = made.macros[0]!.rows;
    const cut = applyEdits(made, [{ do: 'remove', id: first!.stages[0]! }]);
    expect(cut.macros[0]!.rows).toEqual(others);
    expect(applyEdits(made, [{ do: 'remove', id: 'tide' }]).macros).toEqual([]);
  });

  it.each([
    ['a fader that is none', { fader: 'water', rows: [] }, 'macros[0].fader'],
    ['a stage that is not there', { fader: 'tide', rows: [{ ...ends, stages: ['gone'] }] }, 'macros[0].rows[0].stages'],
    ['no stage', { fader: 'tide', rows: [{ ...ends, stages: [] }] }, 'macros[0].rows[0].stages'],
    ['an end that is none', { fader: 'tide', rows: [{ ...ends, end: 'water.out' }] }, 'macros[0].rows[0].end'],
    ['a stage of two ends', { fader: 'tide', rows: [ends, ends] }, 'macros[0].rows[1].stages'],
  ])('is refused with %s', (_what, doc, place) => {
    const result = parsePatch({ ...printPatch(made), macros: [doc] });
    expect(result.ok ? [] : result.errors.map((e) => e.path)).toEqual([expect.stringContaining(place)]);
  });

  it('says row by row what cannot be, and changes nothing then', () => {
    const bad = macroEdits(bare, {
      ...macro,
      rows: [
        { end: 'water.cutoff', from: 200, to: 90_000, curve: 'straight', begins: 0 },
        { end: 'hull.cv', from: -20, to: 0, curve: 'straight', begins: 5 },
        { end: 'nowhere.cv', from: 0, to: 1, curve: 'straight', begins: 0 },
        { end: 'hull.cv', from: -20, to: 0, curve: 'straight', begins: 0 },
      ],
    });
    expect(bad.edits).toEqual([]);
    expect(bad.faults.map((f) => f.row)).toEqual([0, 1, 2, 3]);
    expect(macroEdits(bare, { ...macro, name: ' ', span: [3, 3] }).faults.filter((f) => f.row === null)).toHaveLength(
      2,
    );
  });
});
