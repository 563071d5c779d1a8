import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import sqlite3 from 'sqlite3';
import { describe, expect, it, vi } from 'vitest';
import type { LibraryState } from '@/wire/library';
import { damageTable } from '@/server/testing/damage';
import { DeskDriver, fetchPatch, storePatch } from './support/desk';
import { downloaded } from './support/downloads';
import { openPages } from './support/pages';
import { Application } from './support/setup';

const { at } = openPages({ alone: true });

/** Does something to the library's file, beside the server. */
function inLibrary(sql: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(path.join(at.data, 'fenvo.sqlite'));
    db.configure('busyTimeout', 5000);
    db.exec(sql, (error) => db.close(() => (error ? reject(error) : resolve())));
  });
}

describe('a library', () => {
  it('is backed up and restored from its page, while it is used', async () => {
    const { page, desk } = at;
    await desk.goTo('/preferences');
    await page.waitForSelector('[data-last-backup]');
    expect(await page.$eval('[data-last-backup]', (e) => e.textContent)).toMatch(/^Never; \d+ saves so far$/);
    const today = await page.evaluate(() => new Date().toLocaleDateString('sv'));
    const bytes = await downloaded(page, `fenvo-${today}.sqlite`, () => desk.button('Back up'));
    expect(bytes.subarray(0, 15).toString()).toBe('SQLite format 3');
    await page.waitForFunction(() =>
      /nothing saved since$/.test(document.querySelector('[data-last-backup]')?.textContent ?? ''),
    );
    const names = async (): Promise<string[]> => {
      const { patches } = (await (await fetch(`${at.url}/api/patches`)).json()) as { patches: { id: string }[] };
      return patches.map((p) => p.id).toSorted();
    };
    const before = await names();
    await page.evaluate((id) => fetch(`/api/patches/${id}`, { method: 'DELETE' }), before[0]);
    expect(await names()).toEqual(before.slice(1));

    const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-backup-'));
    const [right, wrong] = [path.join(folder, 'mine.sqlite'), path.join(folder, 'wrong.sqlite')];
    writeFileSync(right, bytes);
    writeFileSync(wrong, 'No database.');
    // It makes room for how far the file before is.
    const bringIn = async (file: string): Promise<void> => {
      const input = (await page.waitForSelector('input[aria-label="A backup"]')) as ElementHandle<HTMLInputElement>;
      await input.uploadFile(file);
    };
    at.allowFault(/422/);
    await bringIn(wrong);
    await page.waitForSelector('::-p-xpath(//*[@role="alert" and contains(., "The file could not be read")])');
    await bringIn(right);
    await page.waitForSelector('::-p-xpath(//*[@role="dialog" and contains(., "Replace your library with")])');
    await desk.button('Replace');
    await page.waitForSelector('::-p-xpath(//*[@role="dialog" and contains(., "Your former library is kept as")])');
    await desk.button('Open the library');
    await page.waitForSelector(`[data-patch="${before[0]}"]`);
    expect(await names()).toEqual(before);
    rmSync(folder, { recursive: true, force: true });
  });

  it('keeps what is preferred for every browser, from rails to units', async () => {
    const { page, desk } = at;
    await desk.goTo('/preferences');
    await page.waitForSelector('[data-last-backup]');
    await desk.select('Frequencies', 'notes');
    await desk.select('Knob positions', 'clock');
    await desk.fill('[aria-label="Supply rails"]', '15');
    await page.keyboard.press('Enter');
    await desk.select('Theme', 'dark');
    const kept = async () =>
      ((await (await fetch(`${at.url}/api/preferences`)).json()) as { preferences: object | null }).preferences;
    await expect.poll(kept).toMatchObject({ pitches: 'notes', pointers: 'clock', railVolts: 15, theme: 'dark' });
    const other = await at.newcomer();
    await other.desk.goTo('/');
    await other.page.waitForSelector('html.dark');
    await other.page.waitForSelector('[data-patch]');
    await other.page.evaluate(() => {
      const kept = JSON.parse(localStorage.getItem('fenvo.settings') ?? '{}') as object;
      localStorage.setItem('fenvo.settings', JSON.stringify({ ...kept, guide: 'off' }));
    });
    await other.desk.openItself('tide-gauge-to-three-ends');
    const readings = await other.page.$eval('[aria-label="Destinations and sources"]', (e) => e.textContent);
    expect(readings).toMatch(/[A-G]♯?\d/);
  });

  it('says that a backup is due, and is quiet for a week when asked', async () => {
    const { page, desk } = at;
    await desk.goTo('/');
    await page.waitForSelector('[data-patch]');
    expect(await page.$('[data-backup-due]')).toBeNull();
    await inLibrary("UPDATE backups SET at = datetime('now', '-40 days')");
    await storePatch(at.url, { format: 'fenvo.patch', version: 1, name: 'New patch' });
    await page.reload();
    await page.waitForSelector('[data-backup-due]');
    expect(await page.$eval('[data-backup-due]', (e) => e.textContent)).toContain(
      'was last backed up 40 days ago; 1 save since',
    );
    await desk.button('Later');
    await page.waitForSelector('[data-backup-due]', { hidden: true });
    await page.reload();
    await page.waitForSelector('[data-patch]');
    expect(await page.$('[data-backup-due]')).toBeNull();
  });
});

describe('a library whose file is damaged', () => {
  it('opens read-only as far as it can be read, goes out, and is gone on with', async () => {
    const application = await Application.open();
    try {
      const { page } = await at.ownPage();
      const desk = new DeskDriver(page, application.url);
      const { patches: before } = (await (await fetch(`${application.url}/api/patches`)).json()) as {
        patches: { id: string }[];
      };
      await application.stop('SIGTERM');
      await damageTable(path.join(application.data, 'fenvo.sqlite'), 'patches');
      await application.start();
      // It is looked through once the first pages are on their way.
      await vi.waitFor(
        async () => {
          const { damage } = (await (await fetch(`${application.url}/api/library`)).json()) as LibraryState;
          expect(damage?.holdings.patches).toBe(before.length);
        },
        { timeout: 30_000, interval: 250 },
      );
      at.allowFault(/503/);
      await page.goto(application.url, { waitUntil: 'domcontentloaded' });
      await page.waitForSelector('[data-damaged]');
      expect(await page.$eval('[data-damaged]', (e) => e.textContent)).toMatch(
        /open read-only\. Not readable: \d+ patch(es)?\. \d+ patch(es)? came back as an earlier version\./,
      );
      await page.waitForSelector('[data-placed]');
      await desk.button('Empty patch');
      await page.waitForSelector('::-p-text(so it is open read-only. This change was not saved.)');
      const today = await page.evaluate(() => new Date().toLocaleDateString('sv'));
      const bytes = await downloaded(page, `fenvo-${today}.sqlite`, () => desk.button('Export what could be read'));
      expect(bytes.subarray(0, 15).toString()).toBe('SQLite format 3');
      await desk.button('Continue with it');
      await page.waitForSelector('[data-damaged]', { hidden: true });
      await page.waitForSelector('::-p-text(The damaged file is kept as)');
      const id = await storePatch(application.url, { format: 'fenvo.patch', version: 1, name: 'After the flood' });
      expect(await fetchPatch(application.url, id)).toMatchObject({ revision: 1 });
      await page.reload({ waitUntil: 'domcontentloaded' });
      await page.waitForSelector(`[data-patch="${id}"]`);
      // Before its server goes.
      await page.close();
    } finally {
      await application.close();
    }
  });
});
