import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { USUAL } from '../wire/usual';
import { check } from './beside/tasks';
import { preferencesSchema } from './checks/schemas';
import { openDatabase } from './database';
import type { Database } from './database';
import { Patches } from './patches';
import { instrument, Preferences } from './preferences';
import { Racks } from './racks';
import { sheetAnswer } from './sheets';

let folder: string;
let db: Database;
beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'fenvo-preferences-'));
  db = await openDatabase(folder);
});
afterEach(async () => {
  await db.sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});

it('are kept whole, with what is usual for what nobody chose, and go back to it', async () => {
  const preferences = new Preferences(db);
  expect(await preferences.get()).toEqual({ preferences: null });
  const chosen = check(preferencesSchema, { theme: 'dark', bpm: 96 }, 'body');
  await preferences.put(chosen as typeof USUAL);
  expect(await preferences.get()).toEqual({ preferences: { ...USUAL, theme: 'dark', bpm: 96 } });
  expect(await preferences.remove()).toEqual({ preferences: null });
  for (const wrong of [{ theme: 'loud' }, { startDb: 0 }, { bpm: 0 }, { unknown: true }])
    expect(() => check(preferencesSchema, wrong, 'body')).toThrow();
});

it('tell what a sheet expects of a reading: within what the instrument is off by', async () => {
  const modules = [
    { id: 'two', kind: 'constant', params: { volts: 4, lowVolts: 0, highVolts: 5 } },
    { id: 'trim', kind: 'attenuverter', params: { amount: 0.5 } },
    { id: 'tone', kind: 'filter' },
  ];
  const cables = [
    { from: 'two.out', to: 'trim.in' },
    { from: 'trim.out', to: 'tone.cutoff' },
  ];
  const patches = new Patches(db);
  const { id } = await patches.create({ format: 'fenvo.patch', version: 1, name: 'Two volts', modules, cables });
  await patches.summaries.settled();
  const widths = async (): Promise<number[]> => {
    const answer = await sheetAnswer(patches, new Racks(db), id, {
      rack: '',
      measured: false,
      format: 'json',
      size: 'A4',
    });
    const sheet = (await answer.json()) as {
      steps: { expect?: { meter?: { quantity: string; plusMinus: number }[] } }[];
    };
    return sheet.steps.flatMap(
      (s) => s.expect?.meter?.flatMap((m) => (m.quantity === 'rms' ? [] : [m.plusMinus])) ?? [],
    );
  };
  const usual = await widths();
  await new Preferences(db).put({ ...USUAL, meterPercent: 5, meterVolts: 0.2 });
  expect(await instrument()).toEqual({ share: 0.05, volts: 0.2, acShare: 0.015 });
  const coarse = await widths();
  expect(coarse).toHaveLength(usual.length);
  expect(usual.length).toBeGreaterThan(0);
  coarse.forEach((width, i) => expect(width).toBeGreaterThan(usual[i]! + 0.15));
});
