import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { parseLog, printPatch } from '../core';
import { Bench } from './bench';
import { BenchFiles } from './benchFiles';
import { importLog, logAnswer, logOf, printLog } from './benchLog';
import { openDatabase } from './database';
import type { Database } from './database';
import { ApiError } from './checks/errors';
import { ReadingRow, SessionRow } from './models';
import { Patches } from './patches';
import { Racks } from './racks';
import type { Document } from '../wire/patches';

const read = (file: string): Document => JSON.parse(readFileSync(file, 'utf8')) as Document;
const fog = read('demo/patches/fog-bank-breathing.fenvo.json');
const pier = read('demo/racks/pier-rack.fenvo-rack.json');

let folder: string;
let db: Database;
let bench: Bench;

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'fenvo-bench-'));
  db = await openDatabase(folder);
  bench = new Bench(db);
  await new Patches(db).create(fog, [], 'fog');
  await new Racks(db).create(pier, 'pier');
});
afterEach(async () => {
  await new Patches(db).summaries.settled();
  await db.sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});

const files = (): BenchFiles => new BenchFiles(db);
const tick = (reads: Record<string, string>, at = Date.now()) => ({ done: true, at, reads });

describe('sessions at the rack', () => {
  it('begin with what a sheet collects, whoever sends it, and judge each reading', async () => {
    const id = await bench.collect('fog', 'pier', { 'measure-trim.out': tick({ low: '0,03 V', high: '1.9' }) });
    // Another phone, the same sheet: one session.
    expect(await bench.collect('fog', 'pier', { 'measure-swell.out': tick({ low: '-5.01' }) })).toBe(id);
    const session = await bench.get(id!);
    expect(session).toMatchObject({
      patch: 'Fog bank breathing',
      rack: 'Pier rack',
      readings: 3,
      wrong: 1,
      ended: null,
    });
    expect(session.list.map((r) => [r.at, r.quantity, r.value, r.verdict])).toEqual([
      ['trim.out', 'low', 0.03, 'good'],
      ['trim.out', 'high', 1.9, 'wrong'],
      ['swell.out', 'low', -5.01, 'good'],
    ]);
    expect(session.assignment).toContainEqual(expect.objectContaining({ module: 'trim' }));
  });

  it('only ever add readings: a figure typed anew corrects the old one, the same one is none', async () => {
    const id = (await bench.collect('fog', 'pier', { 'measure-trim.out': tick({ high: '1.9' }) }))!;
    await bench.collect('fog', 'pier', { 'measure-trim.out': tick({ high: '4.0' }) });
    await bench.collect('fog', 'pier', { 'measure-trim.out': tick({ high: '4.0', low: 'about nothing' }) });
    const { list, readings, wrong } = await bench.get(id);
    expect([list.length, readings, wrong]).toEqual([2, 1, 0]);
    expect(list[1]!.corrects).toBe(list[0]!.id);
  });

  it('begin anew after an end, or after hours of nothing', async () => {
    const ticks = { 'measure-trim.out': tick({ high: '4' }) };
    const first = (await bench.collect('fog', 'pier', ticks))!;
    await bench.change(first, { ended: true, notes: 'The trim slips.' });
    const second = (await bench.collect('fog', 'pier', ticks))!;
    expect(second).not.toBe(first);
    await SessionRow.update({ lastUsed: new Date(Date.now() - 13 * 3_600_000) }, { where: { id: second } });
    const third = await bench.collect('fog', 'pier', ticks);
    expect(third).not.toBe(second);
    const all = await bench.list(false);
    expect(all.map((s) => s.ended !== null)).toEqual([false, true, true]);
    expect((await bench.get(first)).notes).toBe('The trim slips.');
    // Nothing ticked, nothing begun.
    expect(await bench.collect('fog', '', { x: { done: false, at: 1 } })).toBeNull();
  });

  it('keep what is deleted, and give it back', async () => {
    const id = (await bench.collect('fog', 'pier', { 'measure-trim.out': tick({ high: '4' }) }))!;
    await bench.setDeleted(id, true);
    expect([(await bench.list(false)).length, (await bench.list(true)).length]).toEqual([0, 1]);
    await expect(bench.addReadings(id, [{ at: 'trim.out', quantity: 'low', value: 0 }])).rejects.toBeInstanceOf(
      ApiError,
    );
    await bench.setDeleted(id, false);
    expect((await bench.get(id)).readings).toBe(1);
    const file = await files().add(id, { kind: 'photograph', name: 'Rack', type: 'image/png' }, Buffer.from('x'));
    await files().setDeleted(file.id, true);
    expect((await bench.get(id)).attached[0]!.deletedAt).not.toBeNull();
    expect((await bench.list(false))[0]!.files).toBe(0);
  });

  it('tell the trend at a socket, without simulated ones', async () => {
    for (const high of ['3.98', '4.02', '4.05']) {
      const id = (await bench.collect('fog', 'pier', { 'measure-trim.out': tick({ high }) }))!;
      await bench.change(id, { ended: true });
    }
    const simulated = { seed: 3, faults: [], surprise: false };
    const other = await bench.open({ patch: 'fog', rack: 'pier', simulated });
    await bench.addReadings(other.id, [{ at: 'trim.out', quantity: 'high', value: 9 }]);
    expect((await bench.trend('fog', 'trim.out', 'high')).map((p) => p.value)).toEqual([3.98, 4.02, 4.05]);
  });

  it('go out as a log, and come back with their readings, notes and files', async () => {
    const id = (await bench.collect('fog', 'pier', { 'measure-trim.out': tick({ high: '1.9' }) }))!;
    await bench.collect('fog', 'pier', { 'measure-trim.out': tick({ high: '4' }) });
    await bench.change(id, { notes: 'Cold evening.' });
    await files().add(id, { kind: 'photograph', name: 'Rack', type: 'image/png' }, Buffer.from('picture'));
    const log = await logOf({});
    expect(parseLog(JSON.parse(JSON.stringify(printLog(log)))).ok).toBe(true);
    const zip = Buffer.from(await (await logAnswer({}, 'zip')).arrayBuffer());
    const csv = await (await logAnswer({ rack: 'pier' }, 'csv')).text();
    expect(csv.split('\n')[1]).toMatch(
      new RegExp(`,${id},Fog bank breathing,trim.out,high,1.9,V,3.98[0-9]*,[\\d.]+,wrong$`),
    );
    expect(await importLog(db, zip)).toEqual({ added: 0, there: 1 });
    await ReadingRow.destroy({ where: {} });
    await db.sequelize.query('DELETE FROM files');
    await SessionRow.destroy({ where: {} });
    expect(await importLog(db, zip)).toEqual({ added: 1, there: 0 });
    const back = await bench.get(id);
    expect(back).toMatchObject({ notes: 'Cold evening.', readings: 1, wrong: 0, rackId: 'pier', patchId: 'fog' });
    expect(back.list[1]!.corrects).toBe(back.list[0]!.id);
    expect((await files().get(back.attached[0]!.id)).bytes.toString()).toBe('picture');
    expect(printPatch(log.sessions[0]!.patch)).toEqual(back.document);
    await expect(importLog(db, Buffer.from('{"format":"fenvo.patch"}'))).rejects.toThrow(/import the log. format/);
  });
});
