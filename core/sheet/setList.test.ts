import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import { parseRack } from '../document/rack';
import { changeOf } from './change';
import { setListOf } from './setList';

const read = (file: string): unknown => JSON.parse(readFileSync(file, 'utf8'));
const patch = (name: string) => {
  const found = parsePatch(read(`demo/patches/${name}.fenvo.json`));
  if (!found.ok) throw new Error('unreadable');
  return found.value;
};
const rack = (() => {
  const found = parseRack(read('demo/racks/pier-rack.fenvo-rack.json'));
  if (!found.ok) throw new Error('unreadable');
  return found.value;
})();

describe('a set list', () => {
  const names = ['fog-bank-breathing', 'tide-gauge-to-three-ends', 'two-lamps-opposite-ways'];
  const items = names.map((n, i) => ({ patch: patch(n), name: n, notes: '', minutes: 5 + i }));

  it('begins with a whole sheet, then changes from each patch to the next', () => {
    const entries = setListOf(items, { rack });
    expect(entries.map((e) => e.begins)).toEqual(items.map((_, i) => (i === 0 ? 0 : i === 1 ? 5 : 11)));
    expect(entries[0]!.steps.some((s) => s.do === 'unplug')).toBe(false);
    expect(entries[1]!.steps).toEqual(changeOf(items[0]!.patch, items[1]!.patch, { rack }).steps);
  });

  it('keeps free what the next one needs and this one does not, and nothing that plays', () => {
    const entries = setListOf(items, { rack });
    entries.forEach((e, i) => {
      const next = entries[i + 1];
      expect(e.keepFree.filter((c) => e.uses.includes(c))).toEqual([]);
      expect(new Set([...e.uses, ...e.keepFree])).toEqual(new Set([...e.uses, ...(next?.uses ?? [])]));
    });
  });
});
