import { copyFileSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { stream } from '../core/kinds/random';
import { damageTable, overwrite } from './testing/damage';
import { Assets } from './assets';
import { verify } from './backup';
import { DATABASE, openDatabase } from './database';
import { withFile } from './libraryFile';
import { database, goOnWithSalvaged, metDamage } from './library';
import { Patches } from './patches';
import { isWhole, salvage } from './salvage';
import { Upload } from './upload';

let root: string;
/** A library of patches small and large, saved again and again, with recordings. */
let sound: string;
const PAGE = 4096;

const document = (i: number) => ({
  format: 'fenvo.patch',
  version: 1,
  name: `Patch ${i}`,
  notes: 'fog '.repeat(i % 7 === 0 ? 5000 : 20 * i),
});

beforeAll(async () => {
  root = mkdtempSync(path.join(tmpdir(), 'fenvo-salvage-'));
  const folder = path.join(root, 'sound');
  const db = await openDatabase(folder);
  const patches = new Patches(db);
  for (let i = 0; i < 60; i++) {
    const { id } = await patches.create(document(i));
    if (i % 3 === 0) await patches.save(id, 1, { ...document(i), notes: 'later' });
  }
  for (let i = 0; i < 6; i++)
    await new Assets(db).put(
      `trace ${i}`,
      48_000,
      Buffer.from(Float32Array.from({ length: 3000 }, (_, n) => (n + i) / 4000).buffer),
    );
  await patches.summaries.settled();
  await db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
  await db.sequelize.close();
  sound = path.join(folder, DATABASE);
}, 120_000);
afterAll(() => rmSync(root, { recursive: true, force: true }));

/** Rows of a library, by their ids. */
async function rowsOf(file: string, sql: string): Promise<Map<string, string>> {
  const rows = await withFile(file, (ask) => ask(sql));
  return new Map(rows.map(({ id, ...row }) => [String(id), JSON.stringify(row)]));
}
const PATCHES = 'SELECT id, name, body, revision FROM patches';
const TRACES = 'SELECT id, name, hex(volts) AS volts FROM assets';

let folders = 0;
/** A copy of the library. */
function copied(): string {
  const folder = path.join(root, `copy-${folders++}`);
  mkdirSync(folder);
  const file = path.join(folder, DATABASE);
  copyFileSync(sound, file);
  return file;
}
const pagesOf = (file: string): number => statSync(file).size / PAGE;

describe('a damaged library', () => {
  it('that is sound after all is salvaged whole', async () => {
    expect(await isWhole(sound)).toBe(true);
    const into = path.join(root, 'whole');
    const { lost, revived, holdings } = await salvage(sound, into);
    expect({ lost, revived }).toEqual({ lost: {}, revived: 0 });
    expect(holdings).toMatchObject({ patches: 60, recordings: 6 });
    for (const sql of [PATCHES, TRACES])
      expect(await rowsOf(path.join(into, DATABASE), sql)).toEqual(await rowsOf(sound, sql));
  });

  it('is salvaged as far as it can be read, wherever pages are written over, and nothing in it is made up', async () => {
    const [patches, traces] = [await rowsOf(sound, PATCHES), await rowsOf(sound, TRACES)];
    const versions = new Set(
      (await withFile(sound, (ask) => ask('SELECT name, body, revision FROM revisions'))).map((r) => JSON.stringify(r)),
    );
    let kept = 0;
    for (let seed = 0; seed < 24; seed++) {
      const random = stream(seed);
      const count = pagesOf(sound);
      // The first page holds how the file is laid out; without it nothing can be opened.
      const pages = Array.from({ length: 1 + (seed % 4) }, () => 2 + Math.floor(random() * (count - 1)));
      const file = copied();
      overwrite(file, pages, seed % 2 === 0 ? () => 0 : () => Math.floor(256 * random()));
      const into = path.join(path.dirname(file), 'salvaged');
      const salvaged = await salvage(file, into).catch((error: unknown) => String(error));
      if (typeof salvaged === 'string') {
        // Where what the tables are is written over, that is said.
        expect(salvaged).toMatch(/SQLITE_(CORRUPT|NOTADB)/);
        continue;
      }
      const made = path.join(into, DATABASE);
      expect(await verify(made)).toEqual(salvaged.holdings);
      for (const [id, row] of await rowsOf(made, PATCHES)) if (patches.get(id) !== row) expect(versions).toContain(row);
      for (const [id, row] of await rowsOf(made, TRACES)) expect(row).toBe(traces.get(id));
      kept += salvaged.holdings.patches;
      expect(60 - salvaged.holdings.patches).toBeLessThanOrEqual(salvaged.lost.patches ?? 0);
    }
    expect(kept).toBeGreaterThan(24 * 50);
  });

  it('brings a patch back as the newest version of it that can be read', async () => {
    const file = copied();
    await damageTable(file, 'patches');
    expect(await isWhole(file)).toBe(false);
    const into = path.join(path.dirname(file), 'salvaged');
    const { lost, revived, holdings } = await salvage(file, into);
    expect(lost.patches).toBeGreaterThan(0);
    expect(revived).toBeGreaterThan(0);
    expect(holdings.patches).toBe(60);
    // Their present version was kept, too.
    expect(await rowsOf(path.join(into, DATABASE), PATCHES)).toEqual(await rowsOf(sound, PATCHES));
  });
});

describe('the application over a damaged library', () => {
  const before = process.env.FENVO_DATA;
  const shared = globalThis as { fenvoDatabase?: unknown };
  afterEach(() => {
    if (before === undefined) delete process.env.FENVO_DATA;
    else process.env.FENVO_DATA = before;
    delete shared.fenvoDatabase;
  });

  it('opens what can be read, and goes on with it when asked; the damaged file stays', async () => {
    const file = copied();
    await damageTable(file, 'patches');
    process.env.FENVO_DATA = path.dirname(file);
    delete shared.fenvoDatabase;
    expect((await database()).damage).toBeNull();
    await metDamage();
    const opened = await database();
    expect(opened.damage?.holdings.patches).toBe(60);
    expect(await new Patches(opened).count()).toBe(60);
    const { holdings, aside } = await goOnWithSalvaged();
    expect(holdings.patches).toBe(60);
    const again = await database();
    expect(again.damage).toBeNull();
    expect(again.folder).toBe(path.dirname(file));
    await new Patches(again).create(document(99));
    expect(await isWhole(aside)).toBe(false);
    expect(readdirSync(path.dirname(file))).toContain(path.basename(aside));
    await expect(goOnWithSalvaged()).rejects.toMatchObject({ status: 409 });
    await again.sequelize.close();
  });

  it('makes way for a backup', async () => {
    const file = copied();
    await damageTable(file, 'patches');
    const folder = path.dirname(file);
    process.env.FENVO_DATA = folder;
    delete shared.fenvoDatabase;
    await database();
    await metDamage();
    const upload = new Upload(folder);
    upload.add(0, readFileSync(sound));
    const { holdings, aside } = await upload.restore(true);
    expect(holdings).toMatchObject({ patches: 60, recordings: 6 });
    const again = await database();
    expect(again.damage).toBeNull();
    expect(await new Patches(again).count()).toBe(60);
    expect(await isWhole(aside)).toBe(false);
    await again.sequelize.close();
  });
});
