import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { parsePatch, parseRack } from '../core';
import { backUp, restoreBackup } from './backup';
import { Bench } from './bench';
import { DATABASE, openDatabase } from './database';
import { migrationNames } from './migrations';
import { PatchRow, RackRow, RevisionRow } from './models';
import { Patches } from './patches';
import { Practice } from './practice';

const EARLIER = path.join(import.meta.dirname, '..', 'tests', 'earlier');
const dumps = readdirSync(EARLIER).filter((name) => name.endsWith('.sql'));

let root: string;
let folder: string;
beforeEach(() => {
  root = mkdtempSync(path.join(tmpdir(), 'fenvo-earlier-'));
  folder = path.join(root, 'data');
  mkdirSync(folder);
});
afterEach(() => rmSync(root, { recursive: true, force: true }));

/** A library as an earlier version left it. */
function laid(dump: string): Promise<void> {
  const sql = readFileSync(path.join(EARLIER, dump), 'utf8');
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(path.join(folder, DATABASE));
    db.exec(sql, (error) => db.close(() => (error ? reject(error) : resolve())));
  });
}

/** All that a folder's library holds that somebody wrote, read by today's core. */
async function heldIn(at: string) {
  const db = await openDatabase(at);
  try {
    const patches = new Patches(db);
    const faults = (await patches.list(false)).flatMap(({ fault }) => (fault === null ? [] : [fault]));
    await patches.summaries.settled();
    const read = (row: { body: string }): boolean => parsePatch(JSON.parse(row.body)).ok;
    return {
      faults,
      patches: (await PatchRow.findAll()).filter(read).map((p) => p.id),
      versions: (await RevisionRow.findAll()).filter(read).length,
      racks: (await RackRow.findAll()).filter((r) => parseRack(JSON.parse(r.body)).ok).length,
      sessions: (await new Bench(db).list(false)).map((s) => `${s.id}: ${s.readings}`),
      answers: (await new Practice(db).all()).answers.length,
    };
  } finally {
    await db.sequelize.close();
  }
}

describe('a library of an earlier version', () => {
  it('has a sample for every step that changed the database since, but for those that came together', () => {
    const numbers = dumps.map((name) => name.slice(0, 4));
    const steps = migrationNames.map((name) => name.slice(0, 4)).slice(0, -1);
    expect(steps.filter((n) => !numbers.includes(n))).toEqual(['0003']);
  });

  it.each(dumps)('%s opens with all that it holds, and so does a backup of it', async (dump) => {
    await laid(dump);
    // A copy of a library that no server has opened yet is as good as one of today.
    const copy = path.join(root, 'copy.sqlite');
    await backUp(folder, copy);
    const held = await heldIn(folder);
    expect(held.faults).toEqual([]);
    expect(held.patches).toHaveLength(3);
    expect(held.versions).toBeGreaterThanOrEqual(3);
    expect(held.racks).toBe(dump < '0005' ? 0 : 1);
    expect(held.sessions.includes('evening-one: 1')).toBe(dump >= '0008');
    expect(held.answers).toBe(dump < '0010' ? 0 : 1);
    const restored = await restoreBackup(copy, path.join(root, 'other'), { replace: false });
    expect(restored).toMatchObject({ patches: 3, racks: held.racks, sessions: held.sessions.length });
  });
});
