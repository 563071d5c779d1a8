import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Assets } from './assets';
import { openDatabase } from './database';
import type { Database } from './database';
import { Patches } from './patches';

let folder: string;
let db: Database;
beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'fenvo-assets-'));
  db = await openDatabase(folder);
});
afterAll(async () => {
  await db.sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});

const volts = (...values: number[]): Buffer => Buffer.from(Float32Array.from(values).buffer);

describe('imported traces', () => {
  it('come back as they were, and the same one twice is kept once', async () => {
    const assets = new Assets(db);
    const first = await assets.put('hull', 1000, volts(0, 1, -2.5));
    const again = await assets.put('hull again', 1000, volts(0, 1, -2.5));
    const other = await assets.put('hull', 2000, volts(0, 1, -2.5));
    expect(again.id).toBe(first.id);
    expect(other.id).not.toBe(first.id);
    const kept = await assets.get(first.id);
    expect(kept).toMatchObject({ name: 'hull', sampleRate: 1000 });
    expect(kept.volts.equals(volts(0, 1, -2.5))).toBe(true);
  });

  it('are refused where they are no voltages, with the sample named', async () => {
    const assets = new Assets(db);
    await expect(assets.put('x', 1000, volts(0, Number.NaN))).rejects.toMatchObject({
      code: 'bad-asset',
      message: expect.stringContaining('sample 1') as string,
    });
    await expect(assets.put('x', 1000, Buffer.from([1, 2, 3]))).rejects.toMatchObject({ code: 'bad-asset' });
    await expect(assets.get('nothing')).rejects.toMatchObject({ status: 404 });
  });

  it('are heard in the list’s picture of a patch', async () => {
    const { id } = await new Assets(db).put('step', 10, volts(...Array.from({ length: 90 }, () => 3)));
    const patches = new Patches(db);
    await patches.create({
      format: 'fenvo.patch',
      version: 1,
      modules: [
        { id: 'tape', kind: 'recording', params: { assetId: id } },
        { id: 'tone', kind: 'filter' },
      ],
      cables: [{ from: 'tape.out', to: 'tone.cutoff' }],
    });
    await patches.summaries.settled();
    const [listed] = await patches.list(false);
    expect(listed?.summary?.strip[0]?.seen[1]).toBeCloseTo(3, 9);
  });
});

describe('recordings that nothing plays', () => {
  const playing = (id: string, name: string) => ({
    format: 'fenvo.patch',
    version: 1,
    name,
    modules: [{ id: 'tape', kind: 'recording', params: { assetId: id } }],
  });
  const later = new Date(Date.now() + 2 * 3_600_000);

  it('are named with their size once they are settled, and go with the last patch that played them', async () => {
    const [assets, patches] = [new Assets(db), new Patches(db)];
    const [shared, own, loose] = await Promise.all(
      [1, 2, 3].map((v) => assets.put(`trace ${v}`, 1000, volts(v, v, v))),
    );
    const a = await patches.create(playing(shared!.id, 'A'));
    const b = await patches.create(playing(shared!.id, 'B'));
    // A version that is kept plays it still.
    await patches.save(b.id, 1, playing(own!.id, 'B'));
    const unused = async () => (await assets.unused(later)).map((x) => [x.id, x.name, x.bytes]);
    expect(await unused()).toContainEqual([loose!.id, 'trace 3', 12]);
    expect((await unused()).map(([id]) => id)).not.toContain(shared!.id);
    // What came in this minute may be on its way into a patch.
    expect(await assets.unused()).toEqual([]);
    await patches.setDeleted(b.id, true);
    await patches.removeForGood(b.id);
    await expect(assets.get(own!.id)).rejects.toMatchObject({ code: 'not-found' });
    await expect(assets.get(shared!.id)).resolves.toBeTruthy();
    expect(await assets.removeUnused([shared!.id, loose!.id])).toEqual({ removed: 1 });
    await patches.setDeleted(a.id, true);
    await patches.removeForGood(a.id);
    await expect(assets.get(shared!.id)).rejects.toMatchObject({ code: 'not-found' });
  });
});
