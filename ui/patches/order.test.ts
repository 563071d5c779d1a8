import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ListedPatch } from '@/wire/patches';
import { matches, listPatches } from './order';
import type { Column } from './order';

const listed = (id: string, more: Partial<ListedPatch> = {}): ListedPatch => ({
  id,
  name: id,
  revision: 1,
  tags: [],
  updatedAt: '2026-01-01T00:00:00.000Z',
  deletedAt: null,
  fault: null,
  summary: {
    modules: 1,
    notes: '',
    figures: 'arrives',
    findings: { error: 0, warning: 0, note: 0 },
    ends: [],
    wanted: { count: 0, met: 0 },
    strip: [],
    shown: null,
    uses: [],
  },
  ...more,
});
const found = (error: number, warning: number): Partial<ListedPatch> => ({
  summary: {
    modules: 1,
    notes: '',
    figures: 'arrives',
    findings: { error, warning, note: 0 },
    ends: [],
    wanted: { count: 0, met: 0 },
    strip: [],
    shown: null,
    uses: [],
  },
});
const everything = { words: '', tags: [] };

describe('the patches list', () => {
  it('finds by name, tag, end and notes, all words at once', () => {
    const patch = listed('Fog bank', {
      tags: ['pier'],
      summary: {
        modules: 2,
        notes: 'Try the low swell at the second bell',
        figures: 'arrives',
        findings: { error: 0, warning: 0, note: 0 },
        ends: [{ at: 'a.in', label: 'Tone, cutoff', low: 1, high: 2, unit: 'Hz' }],
        wanted: { count: 0, met: 0 },
        strip: [],
        shown: null,
        uses: [],
      },
    });
    for (const words of ['fog', 'PIER', 'cutoff', 'second bell', 'fog swell', ''])
      expect(matches(patch, { words, tags: [] })).toBe(true);
    expect(matches(patch, { words: 'fog engine', tags: [] })).toBe(false);
    expect(matches(patch, { words: '', tags: ['pier'] })).toBe(true);
    expect(matches(patch, { words: '', tags: ['pier', 'loud'] })).toBe(false);
  });
  it('is sorted by what is worst: one error before many warnings, the unreadable first', () => {
    const all = [listed('a', found(0, 9)), listed('b', found(1, 0)), listed('c', { summary: null, fault: 'broken' })];
    expect(listPatches(all, everything, { by: 'findings', down: true }).map((p) => p.id)).toEqual(['c', 'b', 'a']);
  });
  it('any order holds every patch once, and the other way round is its mirror where none are alike', () => {
    const names = fc.uniqueArray(fc.string({ minLength: 1, maxLength: 6 }), { maxLength: 20 });
    fc.assert(
      fc.property(names, fc.constantFrom<Column>('name', 'updatedAt'), (all, by) => {
        const patches = all.map((name, i) =>
          listed(String(i), { name, updatedAt: new Date(1e12 + 7919 * ((i * 37) % 101)).toISOString() }),
        );
        const up = listPatches(patches, everything, { by, down: false });
        expect([...up].sort((a, b) => Number(a.id) - Number(b.id))).toEqual(patches);
        if (by === 'updatedAt') expect(listPatches(patches, everything, { by, down: true })).toEqual(up.toReversed());
      }),
    );
  });
});
