import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { predict } from '../solve/cured';
import { patchOf } from '../testing/patch';
import { macroEdits } from './macro';
import { macrosIn } from './read';
import type { Macro } from './types';

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
  return Object.fromEntries(predict(at, { simulation: false }).readings.map((r) => [r.at, r.high]));
}
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
