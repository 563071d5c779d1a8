import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { backUp, passing, refuseNewer, restoreBackup, verify } from './backup';
import { Assets } from './assets';
import { openDatabase } from './database';
import type { Database } from './database';
import { lockFolder } from './folderLock';
import { libraryIn } from './libraryFile';
import { Patches } from './patches';
import { Upload } from './upload';

let root: string;
let folder: string;
let db: Database;
const file = (): string => path.join(root, 'backup.sqlite');
const other = (): string => path.join(root, 'other');
const patch = (name: string) => ({ format: 'fenvo.patch', version: 1, name });

/** Stores a patch, and waits for what is worked out of it. */
async function keep(name: string): Promise<void> {
  const patches = new Patches(db);
  await patches.create(patch(name));
  await patches.summaries.settled();
}

beforeEach(async () => {
  root = mkdtempSync(path.join(tmpdir(), 'fenvo-backup-'));
  folder = path.join(root, 'data');
  db = await openDatabase(folder);
});
afterEach(async () => {
  await db.sequelize.close();
  rmSync(root, { recursive: true, force: true });
});

/** The names of the patches that a folder holds. */
async function namesIn(at: string): Promise<string[]> {
  const opened = await openDatabase(at);
  const patches = new Patches(opened);
  const names = (await patches.list(false)).map((p) => p.name);
  await patches.summaries.settled();
  await opened.sequelize.close();
  // Its models are those of the last that was opened.
  await db.sequelize.close();
  db = await openDatabase(folder);
  return names.toSorted();
}

describe('a backup', () => {
  it('holds all of a library, recordings included, and comes back in another folder', async () => {
    await keep('Fog');
    await new Assets(db).put(
      'hull',
      8000,
      Buffer.from(Float32Array.from({ length: 800 }, (_, i) => Math.sin(i)).buffer),
    );
    const told = await backUp(folder, file());
    expect(told).toMatchObject({ patches: 1, recordings: 1, bytes: readFileSync(file()).length });
    expect(await restoreBackup(file(), other(), { replace: false })).toMatchObject({
      patches: 1,
      recordings: 1,
      aside: null,
    });
    expect(await namesIn(other())).toEqual(['Fog']);
    expect(readdirSync(root).filter((name) => name.endsWith('.partial'))).toEqual([]);
  });

  it('is whole while saves go on beside it', async () => {
    const patches = new Patches(db);
    const saves = Promise.all(Array.from({ length: 40 }, (_, i) => patches.create(patch(`Patch ${i}`))));
    const told = await backUp(folder, file());
    await saves;
    await patches.summaries.settled();
    expect(told.patches).toBeLessThanOrEqual(40);
    expect(await verify(file())).toMatchObject({ patches: told.patches });
  });

  it('is never written over another file, nor made of nothing', async () => {
    writeFileSync(file(), 'mine');
    await expect(backUp(folder, file())).rejects.toThrow('is there already');
    expect(readFileSync(file(), 'utf8')).toBe('mine');
    await expect(backUp(other(), path.join(root, 'b.sqlite'))).rejects.toThrow('There is no library');
  });
});

describe('restoring', () => {
  it('puts a library aside only where that is asked for, and loses nothing', async () => {
    await keep('Fog');
    await backUp(folder, file());
    await keep('Lamp');
    await db.sequelize.close();
    await expect(restoreBackup(file(), folder, { replace: false })).rejects.toThrow('--replace');
    const { aside } = await restoreBackup(file(), folder, { replace: true, now: new Date('2026-12-01T19:00:00Z') });
    expect(path.basename(aside!)).toBe('before-restore-2026-12-01-190000.sqlite');
    expect(await verify(aside!)).toMatchObject({ patches: 2 });
    db = await openDatabase(folder);
    expect(await namesIn(folder)).toEqual(['Fog']);
  });

  it('is refused while a server uses the folder, and for what is no backup', async () => {
    await backUp(folder, file());
    const lock = await lockFolder(other());
    await expect(restoreBackup(file(), other(), { replace: true })).rejects.toThrow('already using');
    lock.release();
    writeFileSync(path.join(root, 'text.sqlite'), 'Not a database at all, and longer than a header.'.repeat(40));
    await expect(restoreBackup(path.join(root, 'text.sqlite'), other(), { replace: true })).rejects.toThrow(
      'could not be read',
    );
    await expect(restoreBackup(path.join(root, 'none.sqlite'), other(), { replace: true })).rejects.toThrow(
      'isn’t there',
    );
    const damaged = readFileSync(file());
    damaged.fill(0x5a, 3 * 4096, 6 * 4096);
    writeFileSync(path.join(root, 'damaged.sqlite'), damaged);
    await expect(verify(path.join(root, 'damaged.sqlite'))).rejects.toThrow(/damaged|could not be read/);
    expect(existsSync(path.join(other(), 'fenvo.sqlite'))).toBe(false);
  });
});

/** Sends a file as the browser does, in parts. */
function sent(upload: Upload, bytes: Buffer, part = 5000): void {
  for (let at = 0; at < bytes.length; at += part) upload.add(at, bytes.subarray(at, at + part));
}

describe('restoring into the library that the server is using', () => {
  it('brings all of it at once, keeps the former library, and goes on with the next save', async () => {
    await keep('Fog');
    await backUp(folder, file());
    await keep('Lamp');
    const patches = new Patches(db);
    const upload = new Upload(folder);
    sent(upload, readFileSync(file()));
    expect(await upload.holdings()).toMatchObject({ patches: 1 });
    const { holdings, aside } = await upload.restore();
    expect(holdings).toMatchObject({ patches: 1 });
    expect((await patches.list(false)).map((p) => p.name)).toEqual(['Fog']);
    expect(await verify(aside)).toMatchObject({ patches: 2 });
    await keep('Tide');
    expect((await patches.list(false)).map((p) => p.name).toSorted()).toEqual(['Fog', 'Tide']);
    expect(readdirSync(passing(folder))).toEqual([]);
  });

  it('shows whoever reads meanwhile the one library or the other, never a mixture', async () => {
    for (let i = 0; i < 12; i++) await keep(`Old ${i}`);
    await backUp(folder, file());
    for (let i = 0; i < 12; i++) await keep(`New ${i}`);
    const patches = new Patches(db);
    const upload = new Upload(folder);
    sent(upload, readFileSync(file()));
    const counts = new Set<number>();
    let done = false;
    const restored = upload.restore().finally(() => (done = true));
    while (!done) counts.add((await patches.list(false)).length);
    await restored;
    expect([...counts].filter((n) => n !== 24 && n !== 12)).toEqual([]);
    expect(await patches.list(false)).toHaveLength(12);
  });

  it('is refused for what is no backup or came out of place, and changes nothing', async () => {
    await keep('Fog');
    const upload = new Upload(folder);
    sent(upload, Buffer.from('Not a database at all.'.repeat(600)));
    await expect(upload.holdings()).rejects.toMatchObject({ status: 422, code: 'no-backup' });
    await expect(upload.restore()).rejects.toThrow(/^The file could not be read/);
    expect(() => upload.add(7, Buffer.from('x'))).toThrow('Begin it anew');
    upload.remove();
    await expect(upload.holdings()).rejects.toThrow('isn’t there');
    expect((await new Patches(db).list(false)).map((p) => p.name)).toEqual(['Fog']);
    expect(readdirSync(folder).filter((name) => name.startsWith('before-restore'))).toEqual([]);
  });
});

describe('a reminder', () => {
  const in31Days = () => new Date(Date.now() + 31 * 86_400_000);

  it('is due after 30 days with something saved, and no more once the library is backed up', async () => {
    expect(await libraryIn(folder, in31Days())).toMatchObject({ lastBackup: null, saves: 0, due: false });
    await keep('Fog');
    expect(await libraryIn(folder)).toMatchObject({ lastBackup: null, days: 0, saves: 1, due: false });
    expect(await libraryIn(folder, in31Days())).toMatchObject({ days: 31, saves: 1, due: true });
    await backUp(folder, file());
    expect(await libraryIn(folder, in31Days())).toMatchObject({ days: 31, saves: 0, due: false });
    await keep('Lamp');
    expect(await libraryIn(folder, in31Days())).toMatchObject({ saves: 1, due: true });
  });

  it('is due after 500 saves', async () => {
    await keep('Fog');
    await backUp(folder, file());
    await db.sequelize.query('UPDATE patches SET revision = 500');
    expect(await libraryIn(folder)).toMatchObject({ saves: 499, due: false });
    await db.sequelize.query('UPDATE patches SET revision = 501');
    expect(await libraryIn(folder)).toMatchObject({ saves: 500, due: true, holdings: { patches: 1 } });
  });
});

describe('a library of a newer version', () => {
  it('is refused in a sentence, and left as it is', async () => {
    await keep('Fog');
    await db.sequelize.query("INSERT INTO SequelizeMeta (name) VALUES ('9999-later')");
    await expect(refuseNewer(folder)).rejects.toThrow('newer version of Fenvo');
    await expect(openDatabase(folder)).rejects.toMatchObject({ status: 503, code: 'newer' });
    await backUp(folder, file()).catch((error: unknown) => expect(String(error)).toContain('newer version'));
    await db.sequelize.query("DELETE FROM SequelizeMeta WHERE name = '9999-later'");
    await expect(refuseNewer(folder)).resolves.toBeUndefined();
    expect(await namesIn(folder)).toEqual(['Fog']);
  });
});
