import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { QueryTypes } from 'sequelize';
import { allKinds } from '../core';
import { check } from './beside/tasks';
import { searchIdsSchema, searchSchema } from './checks/schemas';
import { openDatabase } from './database';
import type { Database } from './database';
import { PatchRow, SessionRow } from './models';
import { Patches } from './patches';
import { PatchSearch } from './patchSearch';
import { Racks } from './racks';
import type { Wanted } from '../wire/requests';

let folder: string;
let db: Database;
let patches: Patches;
let search: PatchSearch;

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'fenvo-db-'));
  db = await openDatabase(folder);
  patches = new Patches(db);
  search = new PatchSearch(db, patches);
});
afterEach(async () => {
  await search.settled();
  await patches.summaries.settled();
  await db.sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});

const doc = (name: string, more: object = {}) => ({ format: 'fenvo.patch', version: 1, name, ...more });
const swell = {
  notes: 'Opens with the curtain, très lentement.',
  modules: [
    { id: 'swell', kind: 'lfo' },
    { id: 'soft', kind: 'slew', label: 'Soft landing' },
    { id: 'tone', kind: 'filter', label: 'Fog' },
  ],
  cables: [
    { from: 'swell.out', to: 'soft.in' },
    { from: 'soft.out', to: 'tone.cutoff' },
  ],
};
const bell = {
  modules: [
    { id: 'steps', kind: 'sequencer' },
    { id: 'voice', kind: 'oscillator', label: 'Bell' },
  ],
  cables: [{ from: 'steps.cv', to: 'voice.pitch' }],
};
const add = (id: string, more: object = {}, tags: string[] = []) => patches.create(doc(id, more), tags, id);
const idsOf = (wanted: Partial<Wanted> & { rack?: string; since?: string }): Promise<string[]> =>
  search.ids(check(searchIdsSchema, { by: 'name', down: false, ...wanted }, 'body'));
const rowsOf = (request: object) => search.rows(check(searchSchema, request, 'body'));

describe('patches are found', () => {
  beforeEach(async () => {
    await add('harbour', swell, ['act one']);
    await add('bell', bell, ['act two', 'calm']);
    await add('Empty');
  });

  it('by the beginnings of words in name, notes, tags and module names, whatever their case and accents', async () => {
    for (const [words, found] of [
      ['', ['bell', 'Empty', 'harbour']],
      ['HARB', ['harbour']],
      ['tres curt', ['harbour']],
      ['soft land', ['harbour']],
      ['act', ['bell', 'harbour']],
      ['act calm', ['bell']],
      ['arbour', []],
      ['harbour bell', []],
      ['"-*) (', ['bell', 'Empty', 'harbour']],
    ] as const)
      expect(await idsOf({ words })).toEqual(found);
  });

  it('by what a module is called, whatever it is labelled', async () => {
    expect(await idsOf({ words: 'sequenc' })).toEqual(['bell']);
    expect(await idsOf({ words: 'slew fog' })).toEqual(['harbour']);
    for (const kind of allKinds) {
      await patches.create(doc('·', { modules: [{ id: 'x', kind: kind.name, label: '·' }] }), [], kind.name);
      expect(await idsOf({ words: kind.title }), kind.title).toContain(kind.name);
    }
  });

  it('by tags, by a kind, and by the destination that they reach', async () => {
    await patches.summaries.settled();
    expect(await idsOf({ tags: ['act two', 'calm'] })).toEqual(['bell']);
    expect(await idsOf({ tags: ['act'] })).toEqual([]);
    expect(await idsOf({ uses: 'slew' })).toEqual(['harbour']);
    expect(await idsOf({ uses: 'lf' })).toEqual([]);
    expect(await idsOf({ only: ['pitch'] })).toEqual(['bell']);
  });

  it('anew as soon as anything of them changes, and not once they are deleted', async () => {
    await patches.save('harbour', 1, doc('Quay', { modules: bell.modules }), { tags: ['late'] });
    expect(await idsOf({ words: 'soft' })).toEqual([]);
    expect(await idsOf({ words: 'quay late bell' })).toEqual(['harbour']);
    await patches.setTags('Empty', ['blank page']);
    expect(await idsOf({ words: 'blank' })).toEqual(['Empty']);
    await patches.setDeleted('bell', true);
    expect(await idsOf({ words: 'calm' })).toEqual([]);
    expect((await rowsOf({ deleted: true })).patches.map((p) => p.id)).toEqual(['bell']);
    await patches.removeForGood('bell');
    const left = await db.sequelize.query('SELECT n FROM patch_index WHERE patchId = ?', {
      replacements: ['bell'],
      type: QueryTypes.SELECT,
    });
    expect(left).toEqual([]);
  });

  it('with their issues once they are looked at; until then they are counted', async () => {
    await add('loud', {
      modules: [
        { id: 'swell', kind: 'lfo', params: { lowVolts: -4, highVolts: 4 } },
        { id: 'lift', kind: 'offset', params: { volts: 5 } },
        { id: 'tone', kind: 'filter' },
      ],
      cables: [
        { from: 'swell.out', to: 'lift.in' },
        { from: 'lift.out', to: 'tone.cutoff' },
      ],
      settings: { railVolts: 5 },
    });
    expect(await rowsOf({ only: ['issues'] })).toMatchObject({ total: 0, pending: 4 });
    await patches.summaries.settled();
    const found = await rowsOf({ only: ['issues'] });
    expect(found).toMatchObject({ pending: 0 });
    expect(found.patches.map((p) => p.id)).toContain('loud');
    expect(found.patches.map((p) => p.id)).not.toContain('Empty');
    const worst = await rowsOf({ by: 'findings', down: true });
    expect(worst.patches[0]!.id).toBe('loud');
  });

  it('by what a rack has, of the versions that patch and rack have now', async () => {
    const racks = new Racks(db);
    const rack = (kind: string) => ({
      format: 'fenvo.rack',
      version: 1,
      name: 'Pier',
      modules: [{ id: 'quad', channels: [{ id: 'a', kind }] }],
    });
    const { id } = await racks.create(rack('attenuverter'));
    await add('flip', { modules: [{ id: 'flip', kind: 'inverter', label: 'Over' }] });
    const asked = { rack: id, only: ['fits'] as const };
    expect(await rowsOf(asked)).toMatchObject({ total: 0, pending: 4 });
    await search.settled();
    expect(await idsOf({ ...asked, only: ['fits'] })).toEqual(['Empty', 'flip']);
    const rows = await rowsOf({ rack: id });
    expect(rows.patches.find((p) => p.id === 'flip')!.fit).toEqual({ short: [], standIns: 1 });
    expect(await search.check(['flip', 'bell', 'gone'], id)).toMatchObject({
      fitting: 1,
      pending: 0,
      short: [{ id: 'bell', name: 'bell' }],
    });
    await racks.save(id, 1, rack('vca'));
    expect(await rowsOf(asked)).toMatchObject({ total: 0, pending: 4 });
    await search.settled();
    expect(await idsOf({ ...asked, only: ['fits'] })).toEqual(['Empty']);
    expect((await search.check(['flip'], id)).short[0]!.missing).toEqual([{ name: 'Over', kind: 'Inverter' }]);
    await patches.save('flip', 1, doc('flip'));
    expect(await rowsOf(asked)).toMatchObject({ total: 1, pending: 1 });
    await search.settled();
    // A list that is only looked at has no more checked than it shows.
    await racks.save(id, 2, rack('mixer'));
    await rowsOf({ rack: id, by: 'name', down: false, count: 1 });
    await search.settled();
    expect(await rowsOf(asked)).toMatchObject({ pending: 3 });
    await search.settled();
    // Without a rack nothing fits, and nothing is waited for.
    expect(await rowsOf({ only: ['fits'] })).toMatchObject({ total: 0, pending: 0 });
  });

  it('by when they were last played at a real rack', async () => {
    const session = (patchId: string, lastUsed: string, simulated: string | null = null) =>
      SessionRow.create({
        ...{
          id: `${patchId}${lastUsed}`,
          patchId,
          patchName: '',
          patchRevision: 1,
          body: '{}',
          rackId: '',
          rackName: '',
        },
        ...{
          assignment: '[]',
          expects: '{}',
          steps: 0,
          ticks: '{}',
          notes: '',
          simulated,
          ended: null,
          deletedAt: null,
        },
        ...{ started: new Date(lastUsed), lastUsed: new Date(lastUsed) },
      });
    await session('harbour', '2026-11-30T22:00:00.000Z');
    await session('bell', '2026-12-01T00:00:00.000Z');
    await session('Empty', '2026-12-02T00:00:00.000Z', '{}');
    expect(await idsOf({ only: ['played'], since: '2026-12-01T00:00:00.000Z' })).toEqual(['bell']);
    expect(await idsOf({ only: ['played'], since: '2026-11-01T00:00:00.000Z' })).toEqual(['bell', 'harbour']);
    await expect(idsOf({ only: ['played'], since: '2026-99-01T00:00:00Z' })).rejects.toThrow('no date 2026-99');
  });

  it('by pages, each once, in every order', async () => {
    for (let i = 0; i < 25; i++) await add(`p${i % 7}-${i}`);
    await patches.summaries.settled();
    for (const by of ['name', 'arrives', 'findings', 'updatedAt'])
      for (const down of [true, false]) {
        const all: string[] = [];
        for (let from = 0; from < 28; from += 9) {
          const page = await rowsOf({ by, down, from, count: 9 });
          expect(page.total).toBe(28);
          all.push(...page.patches.map((p) => p.id));
        }
        expect(new Set(all).size).toBe(28);
      }
    const names = (await rowsOf({ by: 'name', down: false, count: 28 })).patches.map((p) => p.name);
    expect(names).toEqual([...names].sort((a, b) => (a.toLowerCase() < b.toLowerCase() ? -1 : 1)));
  });

  it('even where one of them is damaged', async () => {
    await PatchRow.update({ body: '{"modules":', tags: 'no' }, { where: { id: 'bell' } });
    await patches.summaries.settled();
    expect(await idsOf({ words: 'bell' })).toEqual(['bell']);
    expect(await idsOf({ words: 'calm' })).toEqual([]);
  });

  it('whatever is typed', async () => {
    await fc.assert(
      fc.asyncProperty(fc.string({ maxLength: 30, unit: 'grapheme' }), async (words) => {
        const found = await idsOf({ words });
        expect(found.length).toBeLessThanOrEqual(3);
      }),
      { numRuns: 60 },
    );
  });
});

describe('several patches', () => {
  it('are tagged, deleted and restored in one go; what is gone is passed over', async () => {
    await add('a', {}, ['old']);
    await add('b');
    const several = (what: 'tag' | 'delete' | 'restore', tags: string[] = []) =>
      patches.several({ ids: ['a', 'b', 'gone'], do: what, tags });
    expect(await several('tag', ['new', 'old'])).toBe(2);
    expect(await idsOf({ tags: ['new'] })).toEqual(['a', 'b']);
    expect((await rowsOf({ words: 'a' })).patches[0]).toMatchObject({ tags: ['old', 'new'], revision: 1 });
    expect(await several('delete')).toBe(2);
    expect(await several('delete')).toBe(0);
    expect(await idsOf({})).toEqual([]);
    expect(await several('restore')).toBe(2);
    const { documents } = JSON.parse(await patches.documents(['b', 'gone'])) as { documents: { name: string }[] };
    expect(documents.map((d) => d.name)).toEqual(['b']);
  });

  it('are told together: how many, whose, with which tags and kinds', async () => {
    await add('a', swell, ['demo', 'b']);
    await add('b', bell, ['a']);
    await add('c', { modules: [{ id: 'x', kind: 'delay' }] });
    await patches.setDeleted('c', true);
    expect(await search.about()).toEqual({
      count: 2,
      demo: 1,
      tags: ['a', 'b', 'demo'],
      kinds: expect.arrayContaining([['slew', expect.any(String)]]) as unknown,
    });
    expect((await search.about()).kinds.map(([name]) => name)).not.toContain('delay');
  });
});
