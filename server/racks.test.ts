import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { mergedTicks } from '../wire/racks';
import { ApiError } from './checks/errors';
import { openDatabase } from './database';
import type { Database } from './database';
import { Patches } from './patches';
import { Racks } from './racks';
import { sheetAnswer } from './sheets';

const rack = (name: string, kind = 'attenuverter') => ({
  format: 'fenvo.rack',
  version: 1,
  name,
  modules: [{ id: 'quad', channels: [{ id: 'a', kind }] }],
});
const flip = {
  format: 'fenvo.patch',
  version: 1,
  name: 'Flip',
  modules: [{ id: 'flip', kind: 'inverter', label: 'Over' }],
};
let folder: string;
let db: Database;
let racks: Racks;
let patches: Patches;

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'fenvo-db-'));
  db = await openDatabase(folder);
  [racks, patches] = [new Racks(db), new Patches(db)];
});
afterEach(async () => {
  await patches.summaries.settled();
  await db.sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});

const refusal = (work: Promise<unknown>): Promise<ApiError> =>
  work.then(
    () => Promise.reject(new Error('it was not refused')),
    (e: unknown) => (e instanceof ApiError ? e : Promise.reject(e)),
  );

describe('racks that are stored', () => {
  it('are listed with what they hold, saved on top of what was read, and recognised when sent again', async () => {
    const made = await racks.create(rack('Pier'));
    expect(await racks.list(false)).toMatchObject([{ name: 'Pier', modules: 1, channels: 1, revision: 1 }]);
    const saved = await racks.save(made.id, 1, rack('Jetty'), 'a-key-of-its-own');
    expect(saved).toMatchObject({ revision: 2, rack: { name: 'Jetty' } });
    expect(await racks.save(made.id, 1, rack('Jetty'), 'a-key-of-its-own')).toMatchObject({ revision: 2 });
    const both = await refusal(racks.save(made.id, 1, rack('Mine')));
    expect(both).toMatchObject({
      status: 409,
      details: { theirs: { rack: { name: 'Jetty' } }, yours: { baseRevision: 1 } },
    });
    expect((await racks.get(made.id)).rack).toMatchObject({ name: 'Jetty' });
  });

  it('are refused with the place of what is wrong, and nothing is stored', async () => {
    const error = await refusal(
      racks.create(rack('Bad', 'nothing')).catch((e: unknown) => Promise.reject(e)) as Promise<unknown>,
    );
    expect(error).toMatchObject({ status: 400, code: 'bad-rack' });
    expect(error.message).toContain('modules[0].channels[0].kind');
    expect(await racks.list(false)).toEqual([]);
  });

  it('are put aside when deleted, refuse saves meanwhile, and come back', async () => {
    const { id } = await racks.create(rack('Pier'), 'pier');
    await racks.setDeleted(id, true);
    expect(await racks.list(false)).toEqual([]);
    expect(await racks.list(true)).toHaveLength(1);
    expect(await refusal(racks.save(id, 1, rack('Mine')))).toMatchObject({ status: 410 });
    await racks.setDeleted(id, false);
    expect(await racks.list(false)).toHaveLength(1);
    expect(await refusal(racks.create(rack('Again'), 'pier'))).toMatchObject({ code: 'exists' });
    expect(await refusal(racks.get('nobody'))).toMatchObject({ status: 404 });
  });

  it('make sheets in every form', async () => {
    const { id } = await racks.create(rack('Pier'));
    const made = await patches.create(flip);
    const answer = (format: 'json' | 'md' | 'csv' | 'pdf' | 'html' | 'svg') =>
      sheetAnswer(patches, racks, made.id, { rack: id, measured: false, format, size: 'A4' });
    expect(await (await answer('json')).json()).toMatchObject({ format: 'fenvo.sheet', patch: 'Flip', rack: 'Pier' });
    expect(await (await answer('md')).text()).toContain('# Flip');
    expect(await (await answer('csv')).text()).toContain('set-flip');
    expect((await (await answer('pdf')).text()).slice(0, 5)).toBe('%PDF-');
    expect(await (await answer('svg')).text()).toContain('<svg xmlns');
    const page = await answer('html');
    expect(page.headers.get('content-disposition')).toContain('Flip');
    expect(await page.text()).toContain('data-tick="set-flip"');
  });
});

describe('ticks of a sheet', () => {
  it('are kept by patch and rack; of each step the later word counts', async () => {
    const { ticks: ahead } = await racks.addTicks('f', 'r', { a: { done: true, at: Date.now() + 1e9 } });
    // A tick dated in the future counts as made now.
    expect(ahead.a!.at).toBeLessThanOrEqual(Date.now());
    await racks.addTicks('p', 'r', { a: { done: true, at: 10 }, b: { done: true, at: 10 } });
    const { ticks: merged } = await racks.addTicks('p', 'r', {
      a: { done: false, at: 5 },
      b: { done: false, at: 20, read: '1.2' },
    });
    expect(merged).toEqual({ a: { done: true, at: 10 }, b: { done: false, at: 20, read: '1.2' } });
    expect((await racks.ticks('p', 'r')).ticks).toEqual(merged);
    expect(await racks.ticks('p', '')).toEqual({ ticks: {}, since: null });
    // Begun anew, what is sent again from before counts no more.
    await racks.clearTicks('p', 'r');
    expect((await racks.addTicks('p', 'r', { a: { done: true, at: 10 } })).ticks).toEqual({});
  });

  it('come to the same whoever speaks first', () => {
    const [a, b] = [
      { x: { done: true, at: 3 }, y: { done: false, at: 1 } },
      { x: { done: false, at: 2 }, z: { done: true, at: 9 } },
    ];
    expect(mergedTicks(a, b)).toEqual(mergedTicks(b, a));
  });
});
