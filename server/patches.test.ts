import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { openDatabase } from './database';
import type { Database } from './database';
import { ApiError } from './checks/errors';
import { storageFault } from './faults';
import { migrationNames } from './migrations';
import { PatchRow } from './models';
import { Patches } from './patches';
import type { Document } from '../wire/patches';

const doc = (name: string, more: object = {}) => ({ format: 'fenvo.patch', version: 1, name, ...more });
let folder: string;
let db: Database;
let patches: Patches;

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'fenvo-db-'));
  db = await openDatabase(folder);
  patches = new Patches(db);
});
afterEach(async () => {
  await patches.summaries.settled();
  await db.sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});

const docOf = ({ body }: { readonly body: string }): Document => JSON.parse(body) as Document;
const codeOf = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (e: unknown) => (e instanceof ApiError ? e.code : String(e)),
  );

describe('the database', () => {
  it('writes ahead, keeps foreign keys, and runs each migration once', async () => {
    const one = async (sql: string): Promise<unknown> =>
      Object.values(((await db.sequelize.query(sql))[0] as object[])[0] ?? {})[0];
    expect(await one('PRAGMA journal_mode')).toBe('wal');
    await expect(
      db.sequelize.query(
        "INSERT INTO revisions (patchId, revision, name, body, savedAt) VALUES ('none', 1, 'x', '{}', '2026-01-01')",
      ),
    ).rejects.toThrow(/FOREIGN KEY|constraint/i);
    const again = await openDatabase(folder);
    const ran = (await again.sequelize.query('SELECT name FROM SequelizeMeta ORDER BY name'))[0];
    expect(ran).toEqual(migrationNames.map((name) => ({ name })));
    await again.sequelize.close();
  });
  it('a transaction that fails leaves nothing, and the next one still runs', async () => {
    const failed = db.write(async (transaction) => {
      await db.sequelize.query("UPDATE patches SET name = 'broken'", { transaction });
      throw new Error('stop');
    });
    await expect(failed).rejects.toThrow('stop');
    expect(docOf(await patches.create(doc('After'))).name).toBe('After');
  });
});

describe('patches', () => {
  it('keep unknown top-level keys and every version', async () => {
    const { id } = await patches.create(doc('One', { studio: { wall: 'north' } }), ['demo']);
    await patches.save(id, 1, doc('Two'));
    expect(docOf(await patches.revision(id, 1))).toMatchObject({ name: 'One', studio: { wall: 'north' } });
    expect((await patches.history(id)).map((r) => [r.revision, r.name])).toEqual([
      [2, 'Two'],
      [1, 'One'],
    ]);
    expect((await patches.get(id)).tags).toEqual(['demo']);
  });
  it('refuse what the core refuses, and store nothing of it', async () => {
    expect(await codeOf(patches.create(doc('Bad', { modules: [{ id: 'a', kind: 'lof' }] })))).toBe('bad-patch');
    const { id } = await patches.create(doc('Good'));
    expect(await codeOf(patches.save(id, 1, doc('Bad', { cables: [{}] })))).toBe('bad-patch');
    const now = await patches.get(id);
    expect([now.revision, docOf(now).name]).toEqual([1, 'Good']);
    expect(await patches.list(false)).toHaveLength(1);
  });
  it('saves of one minute share one kept version, unless one was kept on purpose', async () => {
    const { id } = await patches.create(doc('One'));
    const at = (minute: number, second: number) => vi.setSystemTime(new Date(2027, 0, 1, 10, minute, second));
    vi.useFakeTimers({ toFake: ['Date'] });
    try {
      for (const [minute, second] of [
        [0, 1],
        [0, 20],
        [0, 59],
        [1, 5],
        [1, 6],
      ] as const) {
        at(minute, second);
        const { revision } = await patches.get(id);
        await patches.save(id, revision, doc(`At ${minute}:${second}`));
        if (second === 5) await patches.keepForEver(id, revision + 1, 'named');
      }
    } finally {
      vi.useRealTimers();
    }
    expect((await patches.history(id)).map((v) => v.name)).toEqual(['At 1:6', 'At 1:5', 'At 0:59', 'One']);
    expect((await patches.get(id)).revision).toBe(6);
  });

  it('a save on an older revision is a conflict with both versions', async () => {
    const { id } = await patches.create(doc('One'));
    await patches.save(id, 1, doc('Two'));
    const error = (await patches.save(id, 1, doc('Other')).catch((e: unknown) => e)) as ApiError;
    expect(error.status).toBe(409);
    expect(JSON.parse(error.detailsText ?? '')).toMatchObject({
      theirs: { revision: 2, patch: { name: 'Two' } },
      yours: { patch: { name: 'Other' } },
    });
    expect(await patches.history(id)).toHaveLength(2);
  });
  it('a deleted patch is off the list, can be restored, and keeps its id taken', async () => {
    await patches.create(doc('One'), [], 'lamp');
    await patches.setDeleted('lamp', true);
    expect(await patches.list(false)).toEqual([]);
    expect((await patches.list(true)).map((p) => p.id)).toEqual(['lamp']);
    expect(await patches.has('lamp')).toBe(true);
    expect(await codeOf(patches.create(doc('Again'), [], 'lamp'))).toBe('exists');
    await patches.setDeleted('lamp', false);
    expect((await patches.list(false)).map((p) => p.name)).toEqual(['One']);
  });
  it('what is not there is said to be not there', async () => {
    const works = [
      () => patches.get('x'),
      () => patches.save('x', 1, doc('a')),
      () => patches.setDeleted('x', true),
      () => patches.history('x'),
      () => patches.revision('x', 1),
    ];
    for (const work of works) {
      expect(await codeOf(work())).toBe('not-found');
    }
  });
  it('the list’s summary follows the revision, and is made without a request', async () => {
    const shut = {
      modules: [
        { id: 'l', kind: 'lfo' },
        { id: 'o', kind: 'oscillator' },
        { id: 'a', kind: 'vca' },
      ],
      cables: [
        { from: 'l.out', to: 'a.cv' },
        { from: 'o.sine', to: 'a.in' },
      ],
    };
    const { id } = await patches.create(doc('One', shut));
    expect((await patches.list(false))[0]?.summary).toBeNull();
    await patches.summaries.settled();
    expect((await patches.list(false))[0]?.summary).toMatchObject({
      modules: 3,
      findings: { error: 1 },
      strip: [{ bound: [-5, 5] }, { bound: [-5, 5] }],
    });
    await patches.save(id, 1, doc('Two'));
    await patches.summaries.settled();
    expect((await patches.list(false))[0]?.summary).toMatchObject({ modules: 0, findings: { error: 0 }, strip: [] });
  });
  it('a summary is made once a patch rests, however often it was saved, and at once where somebody looks', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    try {
      const { id } = await patches.create(doc('One'));
      for (let n = 1; n < 4; n++) {
        await patches.save(id, n, doc(`Save ${n}`));
        vi.advanceTimersByTime(1500);
      }
      const made = async () => (await PatchRow.findByPk(id))?.summaryRevision ?? null;
      expect(await made()).toBeNull();
      vi.advanceTimersByTime(600);
      vi.useRealTimers();
      await expect.poll(made).toBe(4);
      await patches.save(id, 4, doc('Looked at'));
      expect((await patches.list(false))[0]?.summary).toBeNull();
      await expect.poll(made).toBe(5);
    } finally {
      vi.useRealTimers();
    }
  });
  it('one row that cannot be read leaves the list standing, and is named', async () => {
    await patches.create(doc('Good'), [], 'good');
    await patches.create(doc('Bad'), [], 'bad');
    await patches.summaries.settled();
    await db.sequelize.query("UPDATE patches SET body = '{\"format\":', summary = NULL, tags = 'no' WHERE id = 'bad'");
    await patches.list(false);
    await patches.summaries.settled();
    const list = await patches.list(false);
    expect(list.map((p) => [p.id, p.fault === null, p.summary !== null]).sort()).toEqual([
      ['bad', false, false],
      ['good', true, true],
    ]);
  });
  it('a save whose answer was lost is recognised by its key, another one is a conflict', async () => {
    const { id } = await patches.create(doc('One'));
    const key = 'one-save-0001';
    const first = await patches.save(id, 1, doc('Two'), { key });
    expect(await patches.save(id, 1, doc('Two'), { key })).toEqual(first);
    expect(await codeOf(patches.save(id, 1, doc('Two'), { key: 'one-save-0002' }))).toBe('conflict');
    expect(await patches.history(id)).toHaveLength(2);
  });
  it('a save onto a deleted patch is told, and one removed for good is gone with its versions', async () => {
    const { id } = await patches.create(doc('One'));
    expect(await codeOf(patches.removeForGood(id))).toBe('not-deleted');
    await patches.setDeleted(id, true);
    expect(await codeOf(patches.save(id, 1, doc('Two')))).toBe('deleted');
    await patches.removeForGood(id);
    expect(await codeOf(patches.get(id))).toBe('not-found');
    expect((await db.sequelize.query('SELECT COUNT(*) AS n FROM revisions'))[0]).toEqual([{ n: 0 }]);
  });
});

describe('storage faults', () => {
  const faultOf = (work: Promise<unknown>): Promise<string> =>
    work.then(
      () => 'done',
      (error: unknown) => storageFault(error, folder)?.code ?? String(error),
    );
  it('a full disk is told as one, and what was saved stays', async () => {
    const { id } = await patches.create(doc('Before'));
    const full = db.write(async (transaction) => {
      await db.sequelize.query('PRAGMA max_page_count = 1', { transaction });
      await db.sequelize.query(`UPDATE patches SET body = '${'x'.repeat(300_000)}'`, { transaction });
    });
    expect(await faultOf(full)).toBe('disk-full');
    expect(docOf(await patches.get(id)).name).toBe('Before');
    expect((await patches.save(id, 1, doc('After'))).revision).toBe(2);
  });
  it('a lock of another program is waited for, then told', async () => {
    const other = new sqlite3.Database(path.join(folder, 'fenvo.sqlite'));
    const waiting = await openDatabase(folder, 1500);
    const inLine = new Patches(waiting);
    const run = (sql: string): Promise<void> =>
      new Promise((resolve, reject) => other.exec(sql, (error) => (error ? reject(error) : resolve())));
    await run('BEGIN IMMEDIATE');
    const waits = inLine.create(doc('Waits'));
    setTimeout(() => void run('COMMIT'), 500);
    expect((await waits).revision).toBe(1);
    await run('BEGIN IMMEDIATE');
    expect(await faultOf(inLine.create(doc('In vain')))).toBe('locked');
    await run('COMMIT');
    await new Promise<void>((resolve) => other.close(() => resolve()));
    await inLine.summaries.settled();
    await waiting.sequelize.close();
  });
});
