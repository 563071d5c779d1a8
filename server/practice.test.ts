import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PracticeAnswer } from '../core/practice';
import { answersSchema } from './checks/schemas';
import { openDatabase } from './database';
import type { Database } from './database';
import { Practice } from './practice';

let folder: string;
let db: Database;
let practice: Practice;

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'fenvo-practice-'));
  db = await openDatabase(folder);
  practice = new Practice(db);
});
afterEach(async () => {
  await db.sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});

const answer = (id: string, more: Partial<PracticeAnswer> = {}): PracticeAnswer => ({
  id,
  skill: 'attenuate',
  level: 1,
  seed: 3,
  at: `2026-03-0${id}T10:00:00Z`,
  score: 0.5,
  seconds: 12.5,
  ...more,
});

describe('answers of practice', () => {
  it('come back as they were given, in their order, and once where they are sent twice', async () => {
    const [late, early] = [answer('2', { slip: 'That forgets the offset.' }), answer('1')];
    await practice.add([late]);
    await practice.add([late, early]);
    expect(await practice.all()).toEqual({ answers: [early, late], removed: 0 });
  });

  it('are removed all together, and restored', async () => {
    await practice.add([answer('1'), answer('2')]);
    expect(await practice.setRemoved(true)).toEqual({ answers: [], removed: 2 });
    await practice.add([answer('3')]);
    const restored = await practice.setRemoved(false);
    expect(restored.answers.map((a) => a.id)).toEqual(['1', '2', '3']);
    expect(restored.removed).toBe(0);
  });

  it('are checked before they are kept', () => {
    const faultIn = (change: object): string | undefined =>
      answersSchema.validate({ answers: [{ ...answer('1'), ...change }] }).error?.message;
    expect(faultIn({})).toBeUndefined();
    expect(faultIn({ score: 2 })).toContain('score');
    expect(faultIn({ level: 6 })).toContain('level');
    expect(faultIn({ at: 'yesterday' })).toContain('at');
    expect(faultIn({ id: '' })).toContain('id');
  });
});
