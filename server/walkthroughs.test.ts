import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { tour } from '../core/practice/walkthroughs/tour';
import { openDatabase } from './database';
import type { Database } from './database';
import { Walkthroughs } from './walkthroughs';

let folder: string;
let db: Database;
let walkthroughs: Walkthroughs;

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'fenvo-walkthroughs-'));
  db = await openDatabase(folder);
  walkthroughs = new Walkthroughs(db);
});
afterEach(async () => {
  await db.sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('walkthroughs of one’s own', () => {
  it('are kept as their documents, and listed with the last saved first', async () => {
    const one = await walkthroughs.add(tour.document);
    expect(one).toMatchObject({ revision: 1, deletedAt: null, walkthrough: { title: 'The tour' } });
    expect(await walkthroughs.get(one.id)).toEqual(one);
    const two = await walkthroughs.add({ ...tour.document, title: 'Another' });
    const saved = await walkthroughs.replace(one.id, 1, { ...tour.document, title: 'The tour, longer' });
    expect(saved.revision).toBe(2);
    expect((await walkthroughs.list(false)).map((w) => w.id)).toEqual([one.id, two.id]);
  });

  it('are never overwritten by who read an older one, and restored once deleted', async () => {
    const { id } = await walkthroughs.add(tour.document);
    await walkthroughs.replace(id, 1, { ...tour.document, title: 'Theirs' });
    await expect(walkthroughs.replace(id, 1, { ...tour.document, title: 'Mine' })).rejects.toMatchObject({
      status: 409,
      details: { theirs: { walkthrough: { title: 'Theirs' } } },
    });
    await walkthroughs.setDeleted(id, true);
    expect(await walkthroughs.list(false)).toEqual([]);
    expect(await walkthroughs.list(true)).toHaveLength(1);
    expect((await walkthroughs.setDeleted(id, false)).deletedAt).toBeNull();
  });

  it('are refused with the place of what is wrong, and nothing is stored', async () => {
    const steps = [{ text: 'Turn it.', set: [{ at: 'trim.amount', value: 9 }] }];
    await expect(walkthroughs.add({ ...tour.document, steps })).rejects.toMatchObject({
      status: 400,
      message: expect.stringContaining('steps[0].set[0].value') as string,
    });
    expect(await walkthroughs.list(false)).toEqual([]);
    await expect(walkthroughs.get('nobody')).rejects.toMatchObject({ status: 404 });
  });
});
