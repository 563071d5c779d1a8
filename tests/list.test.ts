import { describe, expect, it } from 'vitest';
import { storePatch } from './support/desk';
import { openPages } from './support/pages';

const { at } = openPages({ alone: true });

const MADE = 120;
const doc = (name: string, more: object = {}) => ({ format: 'fenvo.patch', version: 1, name, ...more });
const chain = {
  notes: 'Only while the gannets cry.',
  modules: [
    { id: 'steps', kind: 'sequencer' },
    { id: 'glide', kind: 'slew' },
    { id: 'voice', kind: 'oscillator' },
  ],
  cables: [
    { from: 'steps.cv', to: 'glide.in' },
    { from: 'glide.out', to: 'voice.pitch' },
  ],
};

describe('a long list of patches', () => {
  it('is read as far as it is looked at, found by words and filters, and worked on as a whole', async () => {
    const { page, desk } = at;
    for (let from = 0; from < MADE; from += 12)
      await Promise.all(
        Array.from({ length: 12 }, (_, i) =>
          storePatch(at.url, doc(`Moored ${from + i}`, (from + i) % 40 === 0 ? chain : {})),
        ),
      );
    await desk.patches();
    const total = Number(await page.$eval('[aria-rowcount]', (e) => e.ariaRowCount)) - 1;
    expect(total).toBeGreaterThanOrEqual(MADE);
    const drawn = await page.$$eval('[data-patch]', (all) => all.length);
    expect(drawn).toBeLessThan(total / 2);

    // To the end and back, by keys: the row in hand stays where it is.
    await page.focus('[data-index="2"] a');
    await page.keyboard.press('ArrowDown');
    await page.waitForFunction(() => document.activeElement?.closest('[data-index="3"]'));
    await page.evaluate(() => scrollTo(0, document.body.scrollHeight));
    await page.waitForSelector(`[data-patch][data-index="${total - 1}"]`);
    expect(await page.$eval('[data-index="3"]', (e) => e.contains(document.activeElement))).toBe(true);
    await page.evaluate(() => scrollTo(0, 0));

    await page.type('[aria-label="Search patches"]', 'gannets slew');
    await page.waitForSelector('[data-found="3"]');
    await page.waitForFunction(() => document.querySelectorAll('[data-patch]').length === 3);
    await page.click('[data-only=pitch]');
    await page.waitForSelector('[data-only=pitch][aria-pressed=true]');
    await page.waitForSelector('[data-found="3"]', { timeout: 60_000 });
    await desk.button('Saved searches');
    await page.click('::-p-xpath(//li[contains(., "Save this search")])');
    await desk.fill('[role=dialog] input', 'Gulls');
    await page.keyboard.press('Enter');
    await page.waitForSelector('::-p-xpath(//button[text()="Saved: Gulls"])');

    // It goes with the library.
    await page.waitForFunction(() =>
      fetch('/api/preferences')
        .then((r) => r.json() as Promise<{ preferences: { searches: unknown[] } | null }>)
        .then(({ preferences }) => preferences?.searches.length === 1),
    );
    await page.reload({ waitUntil: 'domcontentloaded' });
    await page.waitForSelector('[data-placed]');
    await desk.button('Saved searches');
    await page.click('::-p-xpath(//li[text()="Gulls"])');
    await page.waitForSelector('[data-found="3"]');

    await page.click('[aria-label="Select all patches"]');
    await page.waitForSelector('::-p-xpath(//*[@aria-label="Selected patches"][contains(., "3 patches selected")])');
    await desk.select('Rack in use', 'pier-rack');
    await desk.button('Check against rack');
    await page.waitForSelector('[role=dialog] [data-pending="0"]', { timeout: 30_000 });
    expect(await page.$eval('[role=dialog]', (e) => e.textContent)).toMatch(/3 patches on Pier rack/);
    await desk.button('Close');
    await page.click('::-p-xpath(//*[@aria-label="Selected patches"]//button[text()="Delete"])');
    await page.waitForSelector('::-p-xpath(//p[text()="No matching patches."])');
    await desk.button('Undo');
    await page.waitForSelector('[data-found="3"]');
  });

  it('offers one of all patches by its words, where a session begins', async () => {
    const { page, desk } = at;
    await storePatch(at.url, doc('Winch house, after dark'));
    await storePatch(at.url, doc('The last that was made'));
    await desk.goTo('/bench');
    await desk.button('New session');
    await page.waitForSelector('[role=dialog] [data-picker=Patch]');
    // Once it says the latest: what comes to be known after the field was chosen stands before the first letter.
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[data-picker=Patch]')?.value === 'The last that was made',
    );
    await desk.fill('[data-picker=Patch]', 'winch dark');
    await page.waitForFunction(
      () =>
        [...document.querySelectorAll('[role=option]')].map((e) => e.textContent).join() === 'Winch house, after dark',
    );
    await desk.keys('Enter');
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[data-picker=Patch]')?.value === 'Winch house, after dark',
    );
  });

  it('offers one of all patches over a rack, where none is chosen before', async () => {
    const { page, desk } = at;
    await desk.goTo('/racks');
    await page.waitForSelector('[data-picker="In use by"]');
    await desk.pick('In use by', 'Fog bank breathing');
    await page.waitForFunction(() =>
      document.querySelector('table, [role=table]')?.textContent?.includes('Slow swell'),
    );
  });
});
